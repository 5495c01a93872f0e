package org.protypos.profile;

import java.util.Locale;
import org.protypos.source.Xml;

/** What has been agreed on so that services of different make understand each other: the profiles of the WS-I. */
public enum Profile {
    /** Basic Profile 1.1: SOAP 1.1. */
    BASIC_1_1("Basic Profile 1.1", Xml.WSDL_SOAP11),
    /** Basic Profile 1.2: SOAP 1.1, with addressing. */
    BASIC_1_2("Basic Profile 1.2", Xml.WSDL_SOAP11),
    /** Basic Profile 2.0: SOAP 1.2. */
    BASIC_2_0("Basic Profile 2.0", Xml.WSDL_SOAP12),
    /** Attachments Profile 1.0, on top of Basic Profile 1.1. */
    ATTACHMENTS_1_0("Attachments Profile 1.0", Xml.WSDL_SOAP11);

    private final String title;
    private final String soap;

    Profile(String title, String soap) {
        this.title = title;
        this.soap = soap;
    }

    /** Its name. */
    public String title() {
        return title;
    }

    /** How one asks for it: {@code basic-1.1}. */
    public String key() {
        return name().toLowerCase(Locale.ROOT).replaceFirst("_", "-").replace('_', '.');
    }

    /** The namespace of the bindings that it speaks of. */
    String soap() {
        return soap;
    }
}
