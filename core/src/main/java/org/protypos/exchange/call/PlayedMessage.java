package org.protypos.exchange.call;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Base64;
import java.util.HashMap;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Findings;
import org.protypos.message.check.ContractCheck;
import org.protypos.message.check.EncodedForm;
import org.protypos.message.check.EnvelopeParts;
import org.protypos.message.check.OperationCheck;
import org.protypos.message.model.TypeModel;
import org.protypos.message.model.Vocabulary;
import org.protypos.message.tree.MessageElement;
import org.protypos.message.tree.MessageReader;
import org.protypos.message.tree.MessageText;
import org.protypos.runtime.attach.Attachment;
import org.protypos.runtime.attach.OutgoingPackage;
import org.protypos.runtime.soap.AttachedParts;
import org.protypos.runtime.soap.SoapMessage;
import org.protypos.runtime.xml.XmlElement;
import org.protypos.runtime.xml.XmlInput;
import org.protypos.runtime.xml.XmlLimits;
import org.protypos.runtime.xml.XmlOutput;
import org.protypos.runtime.xml.XmlTree;
import org.protypos.runtime.xml.XmlTypes;
import org.protypos.source.Xml;
import org.protypos.wire.Need;
import org.protypos.wire.WireMessage;
import org.protypos.wire.WirePart;

/** A message as the elements of its body and its header, with what travels beside it. */
public final class PlayedMessage extends SoapMessage {
    private static final QName INCLUDE = new QName("http://www.w3.org/2004/08/xop/include", "Include");
    private static final QName HREF = new QName("href");

    private final CalledOperation called;
    private final WireMessage carried;
    private final Form form;
    private final List<XmlElement<?>> body = new ArrayList<>();
    private final List<XmlElement<?>> headers = new ArrayList<>();
    private final Map<String, Attachment> attached = new LinkedHashMap<>();
    private String envelope;
    private boolean past;
    private AttachedParts beside;

    /**
     * Makes an empty message.
     *
     * @param carried the request or the answer of the operation
     */
    public PlayedMessage(CalledOperation called, WireMessage carried) {
        this.called = called;
        this.carried = carried;
        this.form = Form.valueOf(carried.form().name());
    }

    /** A message with all that a tree holds; its binary content travels beside it where a policy asks for that. */
    public static PlayedMessage of(
            CalledOperation called, WireMessage carried, ContractCheck check, MessageElement message) {
        PlayedMessage played = new PlayedMessage(called, carried);
        Map<MessageElement, TypeModel> types = called.at().optimized() == Need.REQUIRED
                ? new OperationCheck(called.carried(), check)
                        .check(message, carried)
                        .types()
                : Map.of();
        EnvelopeParts.header(message, carried).forEach(block -> played.headers.add(element(block)));
        for (MessageElement part : EnvelopeParts.body(message, carried)) {
            XmlElement<?> element = element(part);
            if (!types.isEmpty()) {
                putOutside(part, element, types);
            }
            played.body.add(element);
        }
        return played;
    }

    /** A request that is there as text, and goes as it is but for header blocks that are added. */
    static PlayedMessage whole(CalledOperation called, String envelope) {
        PlayedMessage played = new PlayedMessage(called, called.request());
        played.envelope = envelope;
        return played;
    }

    /** An empty request of which the content is looked at in its text, by {@link #tree}: reading it only goes past it. */
    public static PlayedMessage passedOver(CalledOperation called) {
        PlayedMessage played = new PlayedMessage(called, called.request());
        played.past = true;
        return played;
    }

    /**
     * The whole message as a tree with places, once it has come: content from beside it is in it, and what stands once stands where
     * it is referred to.
     *
     * @param message the message as it came
     * @param charset the encoding that the transport names, or null
     * @param text the same as text
     */
    public MessageElement tree(byte[] message, String charset, String text, Vocabulary vocabulary) {
        MessageElement root = MessageReader.read("request", message, charset, text);
        inline(root, beside::find);
        return EncodedForm.literal(root, carried, vocabulary);
    }

    @Override
    protected byte[] whole(List<XmlElement<?>> blocks) {
        return envelope == null ? null : EnvelopeText.with(blocks, envelope).getBytes(StandardCharsets.UTF_8);
    }

    /**
     * Puts content that travels beside a message into it, where the message refers to it (XOP, section 3.2). A part that is referred
     * to many times is there as one text, and what would be too much altogether stays where it is.
     */
    public static void inline(MessageElement element, Function<String, Attachment> parts) {
        inline(element, parts, new HashMap<>(), XmlLimits.DEFAULT.memory());
    }

    /** Does it for one element; gives how many characters there is room for afterwards. */
    private static long inline(
            MessageElement element, Function<String, Attachment> parts, Map<Attachment, String> texts, long room) {
        List<MessageElement> children = element.children();
        boolean includes = children.size() == 1 && children.get(0).name().equals(INCLUDE);
        Attachment content = includes ? parts.apply(children.get(0).attributes().getOrDefault(HREF, "")) : null;
        long left = room;
        if (content == null) {
            for (MessageElement child : children) {
                left = inline(child, parts, texts, left);
            }
        } else if (content.length() <= left) {
            element.setText(texts.computeIfAbsent(content, Attachment::toBase64));
            left -= content.length();
        }
        return left;
    }

    private static void putOutside(MessageElement part, XmlElement<?> element, Map<MessageElement, TypeModel> types) {
        if (!(element.value() instanceof XmlTree tree)) {
            return;
        }
        TypeModel type = types.get(part);
        boolean binary =
                type != null && type.text() != null && type.text().builtin().equals("base64Binary");
        if (binary && part.children().isEmpty()) {
            tree.content().clear();
            tree.content().add(Attachment.of(Base64.getMimeDecoder().decode(part.text())));
            return;
        }
        Iterator<MessageElement> children = part.children().iterator();
        for (Object item : tree.content()) {
            if (item instanceof XmlElement<?> child && children.hasNext()) {
                putOutside(children.next(), child, types);
            }
        }
    }

    /** The operation that it is a message of. */
    public CalledOperation called() {
        return called;
    }

    /** What stands in the body. */
    public List<MessageElement> body() {
        return trees(body);
    }

    /** The header blocks. */
    public List<MessageElement> headers() {
        return trees(headers);
    }

    /** The parts beside it by their names; may be added to. */
    public Map<String, Attachment> attached() {
        return attached;
    }

    @Override
    protected boolean isEncoded() {
        return carried.isEncoded();
    }

    @Override
    protected Form form() {
        return form;
    }

    @Override
    protected String textPart() {
        return carried.parts().get(0).name();
    }

    @Override
    protected String action() {
        return carried.action();
    }

    @Override
    protected boolean isOneWay() {
        return called.answer() == null;
    }

    @Override
    protected boolean hasHeaders() {
        return !headers.isEmpty();
    }

    @Override
    protected void writeHeaders(XmlOutput out) {
        headers.forEach(out::element);
    }

    @Override
    protected boolean takeHeader(XmlElement<?> block) {
        boolean known = carried.block(block.name()) != null;
        if (known && !past) {
            headers.add(block);
        }
        return known;
    }

    /** A document of no parts is none, whatever stands for it. */
    private boolean isNothing() {
        return form == Form.DOCUMENT && carried.parts().isEmpty();
    }

    @Override
    protected void readBody(XmlInput in) {
        while (past && in.atElement()) {
            in.skip();
        }
        while (in.atElement()) {
            XmlElement<?> came = in.wholeTree();
            // Fields and texts come in some element: it is the one that stands for the operation.
            boolean around = !carried.isSoap() && carried.isWrapped();
            XmlElement<?> element = around ? new XmlElement<>(carried.wrapper(), came.value()) : came;
            if (!isNothing()) {
                body.add(element);
            }
        }
    }

    @Override
    protected void writeBody(XmlOutput out) {
        if (!isNothing()) {
            body.forEach(out::element);
        }
    }

    @Override
    protected void writeAttachments(OutgoingPackage out) {
        if (form == Form.BYTES) {
            String text =
                    body.isEmpty() ? "" : tree(body.get(0)).children().get(0).text();
            out.attach(
                    carried.parts().get(0).name(),
                    typed(
                            Attachment.of(Base64.getMimeDecoder().decode(text)),
                            carried.parts().get(0)));
        }
        for (WirePart part : carried.attachments()) {
            if (attached.containsKey(part.name())) {
                out.attach(part.name(), typed(attached.get(part.name()), part));
            }
        }
    }

    @Override
    protected void readAttachments(AttachedParts in) {
        beside = in;
        if (form == Form.BYTES) {
            Attachment content = in.take("");
            MessageElement part =
                    new MessageElement(new QName(carried.parts().get(0).name()), null);
            part.setText(content == null ? "" : content.toBase64());
            MessageElement around = new MessageElement(carried.wrapper(), null);
            around.add(part);
            body.add(element(around));
        }
        for (WirePart part : carried.attachments()) {
            Attachment content = in.take(part.name());
            if (content != null) {
                attached.put(part.name(), content);
            }
        }
    }

    private static Attachment typed(Attachment content, WirePart part) {
        return part.mediaType().isEmpty() ? content : content.of(part.mediaType());
    }

    private static MessageElement tree(XmlElement<?> element) {
        if (!(element.value() instanceof XmlTree content)) {
            return MessageReader.read("message", XmlTypes.NONE.write(element), new Findings());
        }
        MessageElement tree = new MessageElement(element.name(), null);
        tree.prefixes().putAll(content.prefixes());
        tree.attributes().putAll(content.attributes());
        if (content.nil()) {
            tree.attributes().put(new QName(Xml.XSI, "nil"), "true");
        }
        for (Object item : content.content()) {
            if (item instanceof XmlElement<?> child) {
                tree.add(tree(child));
            } else if (item instanceof Attachment binary) {
                tree.add(binary.toBase64());
            } else {
                tree.add((String) item);
            }
        }
        return tree;
    }

    private static List<MessageElement> trees(List<XmlElement<?>> elements) {
        return elements.stream().map(PlayedMessage::tree).toList();
    }

    /** An element that stands for itself: it gets the prefixes that are declared around it. */
    public static XmlElement<?> element(MessageElement tree) {
        for (MessageElement around = tree.parent(); around != null; around = around.parent()) {
            around.prefixes().forEach(tree.prefixes()::putIfAbsent);
        }
        byte[] written = MessageText.compact(tree).getBytes(StandardCharsets.UTF_8);
        XmlInput in = XmlInput.open(new ByteArrayInputStream(written), null, XmlTypes.NONE, XmlLimits.DEFAULT);
        XmlElement<?> element = in.wholeTree();
        in.finish();
        return element;
    }
}
