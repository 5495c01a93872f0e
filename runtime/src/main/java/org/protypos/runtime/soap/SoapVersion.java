package org.protypos.runtime.soap;

/** The versions of SOAP: what differs between them on the wire. */
public enum SoapVersion {
    /** Simple Object Access Protocol 1.1, W3C Note of 8 May 2000. */
    SOAP_1_1("http://schemas.xmlsoap.org/soap/envelope/", "text/xml", "Client", "Server"),
    /** SOAP Version 1.2, W3C Recommendation of 27 April 2007. */
    SOAP_1_2("http://www.w3.org/2003/05/soap-envelope", "application/soap+xml", "Sender", "Receiver");

    private final String namespace;
    private final String mediaType;
    private final String senderCode;
    private final String receiverCode;

    SoapVersion(String namespace, String mediaType, String senderCode, String receiverCode) {
        this.namespace = namespace;
        this.mediaType = mediaType;
        this.senderCode = senderCode;
        this.receiverCode = receiverCode;
    }

    /** The namespace of the envelope. */
    public String namespace() {
        return namespace;
    }

    /** The media type of a message over HTTP. */
    public String mediaType() {
        return mediaType;
    }

    /** The fault code that puts the fault at the sender's side. */
    String senderCode() {
        return senderCode;
    }

    /** The fault code that puts the fault at the receiver's side. */
    String receiverCode() {
        return receiverCode;
    }

    /** The content type of a message, with the action where this version carries it there. */
    String contentType(String action) {
        String type = mediaType + "; charset=utf-8";
        return this == SOAP_1_2 && !action.isEmpty() ? type + "; action=\"" + action + "\"" : type;
    }

    static SoapVersion ofNamespace(String namespace) {
        for (SoapVersion version : values()) {
            if (version.namespace.equals(namespace)) {
                return version;
            }
        }
        return null;
    }
}
