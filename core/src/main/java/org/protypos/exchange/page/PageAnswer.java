package org.protypos.exchange.page;

import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.soap.SoapMessage;

/** What a browser gets. */
final class PageAnswer extends SoapMessage {
    private final byte[] content;
    private final String type;

    PageAnswer(byte[] content, String type) {
        this.content = content;
        this.type = type;
    }

    @Override
    protected Form form() {
        return Form.BYTES;
    }

    @Override
    protected void writeAttachments(OutgoingPackage out) {
        out.attach("content", Attachment.of(content, type));
    }
}
