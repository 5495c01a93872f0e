package org.protypos.exchange.page;

import java.util.LinkedHashMap;
import java.util.Map;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlTree;

/** What a browser asks for, with the fields of its query or form. */
final class PageRequest extends SoapMessage {
    private final String location;
    private final Map<String, String> fields = new LinkedHashMap<>();

    PageRequest(String location) {
        this.location = location;
    }

    String location() {
        return location;
    }

    Map<String, String> fields() {
        return fields;
    }

    @Override
    protected Form form() {
        return Form.FIELDS;
    }

    @Override
    protected void readBody(XmlInput in) {
        XmlTree all = (XmlTree) in.element().value();
        for (Object item : all.content()) {
            if (item instanceof XmlElement<?> field && field.value() instanceof XmlTree content) {
                fields.put(field.name().getLocalPart(), content.text());
            }
        }
    }
}
