package org.protypos.profile;

/** The requirements of the profiles that a contract alone can break, by their numbers; the wording of each is ours. */
enum Requirement implements Rule {
    R1034(false, "the prefix xml is declared", "take that away"),
    R2001(
            "wsdl:import leads to a document that is no WSDL",
            "import schemas with xs:import in a schema below wsdl:types"),
    R2003("xs:import stands outside of a schema", "put it into an xs:schema below wsdl:types"),
    R2004("xs:import leads to a document that is no schema", "import WSDL documents with wsdl:import"),
    R2005("the imported document has another target namespace than the import says", "let both say the same"),
    R2007("wsdl:import does not say where the document is", "add its location"),
    R2803("the namespace of wsdl:import is a relative reference", "write an absolute one"),
    R2022("wsdl:import stands behind other parts of the WSDL", "put it right behind the documentation"),
    R2023("wsdl:types stands behind other parts of the WSDL", "put it right behind the imports"),
    R4003("the WSDL is written in an encoding that not everybody reads", "write it in UTF-8"),
    R4004("the WSDL says another version of XML than 1.0", "write version=\"1.0\""),
    R2010("the schema is written in an encoding that not everybody reads", "write it in UTF-8"),
    R2011("the schema says another version of XML than 1.0", "write version=\"1.0\""),
    R2026(
            false,
            "an extension is required, which not everybody knows",
            "take wsdl:required away, or tell your partners"),
    R2101("a name is of a namespace that the document neither imports nor defines", "add a wsdl:import of it"),
    R2102("a name is of a namespace that the schema neither imports nor defines", "add an xs:import of it"),
    R2105("a schema below wsdl:types has no target namespace", "give it one"),
    R2110("a type is made of soapenc:Array", "write an element that repeats"),
    R2111("wsdl:arrayType is used", "write an element that repeats"),
    R2112(false, "a type is called ArrayOf…, as encoded arrays are", "call it otherwise"),
    R2201("a body of document style lists more than one part", "list one"),
    R2203("a body of rpc style carries a part that is an element", "give the part a type"),
    R2204("a body of document style carries a part that has a type", "give the part an element"),
    R2205("a header or a fault carries a part that has a type", "give the part an element"),
    R2209(false, "a part of the message is not bound", "bind it to the body or a header"),
    R2210("a body of document style carries a message of several parts", "give the message one part, or list one"),
    R2303("the operation begins with a message that goes out", "let it begin with one that comes in"),
    R2304("two operations of the port type have the same name", "call one otherwise"),
    R2305("parameterOrder leaves out more than one part of the output", "leave out one at most"),
    R2306("a part has both a type and an element", "take one of them away"),
    R2401("the binding is none that the profile knows", "offer a SOAP port too"),
    R2701("the binding does not say its transport", "add transport=\"http://schemas.xmlsoap.org/soap/http\""),
    R2702("the transport of the binding is not HTTP", "write transport=\"http://schemas.xmlsoap.org/soap/http\""),
    R2705("the binding has operations of both styles", "make two port types of it"),
    R2706("something is encoded", "write use=\"literal\", with types in place of encoded ones"),
    R2710("two operations look the same in a message", "give one another element"),
    R2711(false, "two ports have the same address", "give each one of its own"),
    R2716("a binding of document style says a namespace", "take it away: the element has one"),
    R2717("a body of rpc style says no absolute namespace", "add namespace=\"…\""),
    R2726("a header or a fault of rpc style says a namespace", "take it away: the element has one"),
    R2718("the binding has not the operations of its port type", "bind each, and no others"),
    R2720("a header does not name its part", "add part=\"…\""),
    R2749("a header lists parts", "write a header for each, with part"),
    R2721("a fault of the binding does not say its name", "add name=\"…\""),
    R2754("a fault of the binding is called otherwise than around it", "let both names be the same"),
    R2740(false, "the binding does not say how a fault travels", "add it to the binding"),
    R2901("a message is bound neither by SOAP nor by MIME", "bind it by SOAP, or by MIME with SOAP inside"),
    R2911("a MIME package has not exactly one part with the SOAP body", "let one of its parts hold soap:body");

    private final Wording wording;

    Requirement(String wrong, String cure) {
        this(true, wrong, cure);
    }

    Requirement(boolean must, String wrong, String cure) {
        this.wording = new Wording(must, wrong, cure);
    }

    @Override
    public Wording wording() {
        return wording;
    }
}
