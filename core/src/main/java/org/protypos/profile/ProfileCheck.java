package org.protypos.profile;

import java.util.List;
import org.protypos.contract.Contract;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.source.Document;
import org.protypos.source.Element;
import org.protypos.source.Xml;

/** Judges whether a contract keeps a profile: documents as they are written, port types, bindings and ports. */
public final class ProfileCheck {
    private ProfileCheck() {}

    /** Every place where a contract does not keep a profile: errors for what must be kept, warnings for what should be. */
    public static List<Finding> of(Contract contract, Profile profile) {
        Findings findings = new Findings();
        Told told = (requirement, element, attribute, more) ->
                requirement.tell(findings, attribute == null ? element.place() : element.place(attribute), more);
        DocumentRules documents = new DocumentRules(contract, told);
        BindingRules bindings = new BindingRules(contract, profile, told);
        for (Document document : contract.documents().all()) {
            Element root = document.root();
            if (root == null) {
                continue;
            }
            documents.judge(document);
            if (root.is(Xml.WSDL, "definitions")) {
                bindings.judge(root);
            }
        }
        return findings.sorted();
    }

    /** Takes what is broken. */
    interface Told {
        /**
         * Takes one.
         *
         * @param attribute the attribute that it is about, or null
         * @param more what is there, or null
         */
        void tell(Requirement requirement, Element element, String attribute, String more);
    }
}
