package org.protypos.wsdl;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.diagnostic.Place;

/**
 * Something that a policy asks for (Web Services Policy 1.5 Framework, section 3.1).
 *
 * @param name the kind of the assertion
 * @param optional whether there is an alternative without it
 * @param nested what it consists of
 * @param detail what it names, for those that name something, otherwise empty
 */
public record PolicyAssertion(QName name, boolean optional, List<PolicyAssertion> nested, String detail, Place place) {
    /** WS-MTOMPolicy 1.0, section 3.2, and its later versions. */
    private static final String MTOM = "OptimizedMimeSerialization";

    /** WS-Addressing 1.0 Metadata, section 3.1, and the element of the draft before it. */
    private static final Set<String> ADDRESSING = Set.of("Addressing", "UsingAddressing");

    /** WS-SecurityPolicy 1.2, sections 4.1, 7.3 and 7.4: keys in the message are there to sign it. */
    private static final Set<String> SIGNING =
            Set.of("AsymmetricBinding", "SymmetricBinding", "SignedParts", "SignedElements");

    /** Assertions that only hold others, and say nothing by themselves. */
    private static final Set<String> FRAMES = Set.of(
            "TransportToken",
            "InitiatorToken",
            "RecipientToken",
            "ProtectionToken",
            "SupportingTokens",
            "SignedSupportingTokens",
            "EncryptedSupportingTokens",
            "SignedEncryptedSupportingTokens",
            "EndorsingSupportingTokens",
            "SignedEndorsingSupportingTokens",
            "Wss10",
            "Wss11",
            "Trust10",
            "Trust13",
            "Layout",
            "AlgorithmSuite");

    /** Whether it asks for binary content beside the envelope (MTOM). */
    public boolean isMtom() {
        return name.getLocalPart().equals(MTOM);
    }

    /** Whether it asks for addressing headers. */
    public boolean isAddressing() {
        return ADDRESSING.contains(name.getLocalPart());
    }

    /** Whether it asks for signatures in the message, itself or in what it consists of. */
    public boolean isSigning() {
        return SIGNING.contains(name.getLocalPart()) || nested.stream().anyMatch(PolicyAssertion::isSigning);
    }

    /** Two lists in one, each assertion once. */
    public static List<PolicyAssertion> joined(List<PolicyAssertion> some, List<PolicyAssertion> more) {
        List<PolicyAssertion> all = new ArrayList<>(some);
        more.stream()
                .filter(one -> all.stream().noneMatch(known -> known.name.equals(one.name)))
                .forEach(all::add);
        return List.copyOf(all);
    }

    /** What the assertions ask for in words, each once: those known in plain ones, others by their names. */
    public static List<String> inWords(List<PolicyAssertion> assertions) {
        List<String> words = new ArrayList<>();
        assertions.forEach(assertion -> assertion.words(words, false));
        return words.stream().distinct().toList();
    }

    private void words(List<String> to, boolean inOptional) {
        String local = name.getLocalPart();
        String word =
                switch (local) {
                    case MTOM -> "attachments by MTOM";
                    case "Addressing", "UsingAddressing" -> "addressing headers";
                    case "TransportBinding", "HttpsToken" -> "a secured transport";
                    case "AsymmetricBinding", "SymmetricBinding" -> "message security";
                    case "UsernameToken" -> "a user name token" + passwordForm();
                    case "X509Token" -> "an X.509 certificate";
                    case "SamlToken" -> "a SAML token";
                    case "IssuedToken" -> "an issued token";
                    case "KerberosToken" -> "a Kerberos token";
                    case "IncludeTimestamp" -> "a timestamp";
                    case "SignedParts", "SignedElements" -> "signed " + listed();
                    case "EncryptedParts", "EncryptedElements" -> "encrypted " + listed();
                    case "RMAssertion" -> "reliable messaging";
                    default -> FRAMES.contains(local) ? "" : local;
                };
        if (!word.isEmpty()) {
            to.add(optional || inOptional ? word + " (optional)" : word);
        }
        if (word.isEmpty() || local.endsWith("Binding")) {
            nested.stream()
                    .filter(inner -> !inner.isDetail())
                    .forEach(inner -> inner.words(to, optional || inOptional));
        }
    }

    /** Whether it only refines the assertion around it, in ways that matter to those who implement it. */
    private boolean isDetail() {
        String local = name.getLocalPart();
        return !local.endsWith("Token") && !local.equals("IncludeTimestamp") && !FRAMES.contains(local)
                || local.equals("AlgorithmSuite")
                || local.equals("Layout");
    }

    private String passwordForm() {
        return nested.stream().anyMatch(inner -> inner.name.getLocalPart().equals("HashPassword"))
                ? " with a digest"
                : "";
    }

    private String listed() {
        String parts = nested.stream()
                .map(part -> part.detail.isEmpty() ? part.name.getLocalPart().toLowerCase(Locale.ROOT) : part.detail)
                .collect(Collectors.joining(", "));
        return parts.isEmpty() ? "message" : parts;
    }
}
