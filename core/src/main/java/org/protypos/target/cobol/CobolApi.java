package org.protypos.target.cobol;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import javax.xml.namespace.QName;
import org.protypos.api.Api;
import org.protypos.api.ApiFault;
import org.protypos.api.ApiInterface;
import org.protypos.api.ApiOperation;
import org.protypos.api.ApiService;
import org.protypos.api.type.ApiElement;
import org.protypos.binding.ProposedRule;
import org.protypos.diagnostic.Finding;
import org.protypos.diagnostic.Findings;
import org.protypos.diagnostic.Setting;
import org.protypos.layout.HeadLayout;
import org.protypos.layout.LayoutBuilder;
import org.protypos.layout.RecordLayout;
import org.protypos.layout.Rooms;
import org.protypos.layout.StatusLayout;
import org.protypos.naming.Clash;
import org.protypos.naming.GivenNames;
import org.protypos.naming.NameScope;
import org.protypos.naming.Naming;
import org.protypos.record.RecordTrip;
import org.protypos.target.Beginning;
import org.protypos.target.LoweredApi;
import org.protypos.target.Outline;
import org.protypos.target.Product;
import org.protypos.target.SourceFile;
import org.protypos.target.Surface;
import org.protypos.target.Toolchain;
import org.protypos.target.Wishes;
import org.protypos.wire.WireInterface;

/** The messages of an API as records, with the names that they and their fields have in COBOL. */
final class CobolApi implements LoweredApi {
    /** The member that the record of a call's status is in. */
    static final String STATUS = "CALLSTAT";

    /** The member that the record before one of several requests is in. */
    static final String HEAD = "CALLHEAD";

    private final Findings findings = new Findings();
    private final CobolNames rules;
    private final Naming naming;
    private final FieldNames fields;
    private final NameScope records;
    private final NameScope members;
    private final Rooms rooms;
    private final LayoutBuilder builder;
    private final Map<RecordLayout, String> memberOf = new LinkedHashMap<>();
    private final List<Outline.Interface> interfaces = new ArrayList<>();
    private final Map<ApiInterface, String> servers = new LinkedHashMap<>();
    private final List<Outline.Service> services = new ArrayList<>();

    CobolApi(Api api, CobolNames rules, Wishes wishes) {
        this.rules = rules;
        this.naming = new Naming(rules, wishes.rules(), wishes.past(), findings);
        this.fields = new FieldNames(naming, rules);
        this.records = naming.scope("records", rules.reservedWords());
        List.of(StatusLayout.NAME, HeadLayout.NAME).forEach(records::exclude);
        this.members = naming.scope("members", rules.reservedWords());
        List.of(STATUS, HEAD).forEach(members::exclude);
        List.of(Routine.values()).forEach(routine -> members.exclude(routine.name()));
        this.rooms = new Rooms(wishes.rules(), findings);
        this.builder = new LayoutBuilder(api, rooms);
        for (ApiInterface type : api.interfaces()) {
            List<Outline.Operation> operations = new ArrayList<>();
            type.operations().forEach(operation -> operations.add(operation(operation)));
            interfaces.add(new Outline.Interface("", member(type), operations, type));
        }
        for (ApiInterface type : api.interfaces()) {
            String wanted = memberName(type.name().getLocalPart(), CobolNames.LONGEST_MEMBER - 1) + "S";
            servers.put(type, members.make(wanted, ""));
        }
        if (interfaces.isEmpty()) {
            api.elements().forEach(this::element);
        }
        // A record's own name cannot be qualified, so no field of any other may have it.
        Set<String> names = memberOf.keySet().stream().map(RecordLayout::name).collect(Collectors.toSet());
        names.addAll(List.of(StatusLayout.NAME, HeadLayout.NAME));
        memberOf.keySet().forEach(record -> fields.give(record, names));
        for (ApiService service : api.services()) {
            services.add(new Outline.Service(
                    "",
                    service.name().getLocalPart(),
                    service.ports().stream().map(ApiService.Port::name).toList(),
                    service));
        }
    }

    private String member(ApiInterface type) {
        return type.standing() == WireInterface.Standing.OTHERWISE
                ? members.make(memberName(type.binding().getLocalPart(), CobolNames.LONGEST_MEMBER), "")
                : members.claim(type.subject(), memberName(type.name().getLocalPart(), CobolNames.LONGEST_MEMBER), "");
    }

    private Outline.Operation operation(ApiOperation operation) {
        String name = records.claim(operation.subject(), rules.spelled(operation.name()), "");
        String member = members.make(memberName(name, CobolNames.LONGEST_MEMBER - 1), "");
        StringBuilder line = new StringBuilder(name);
        line.append(add(
                builder.message(
                        records.make(rules.spelled(name, "request"), ""),
                        RecordLayout.Part.REQUEST,
                        operation,
                        operation.input()),
                member + "Q"));
        if (operation.output() != null) {
            line.append(" ->")
                    .append(add(
                            builder.message(
                                    rules.spelled(name, "response"),
                                    RecordLayout.Part.RESPONSE,
                                    operation,
                                    operation.output()),
                            member + "R"));
        }
        List<String> faults = new ArrayList<>();
        for (ApiFault fault : operation.faults()) {
            String faultName = records.make(rules.spelled(name, faultName(fault)), "");
            add(
                    builder.fault(faultName, operation, fault),
                    members.make(memberName(faultName, CobolNames.LONGEST_MEMBER - 1) + "F", ""));
            faults.add(faultName);
        }
        return new Outline.Operation(line.toString(), "", faults, operation);
    }

    /** A name for a member; one that is taken is made shorter, so that a number has room behind it. */
    private String memberName(String name, int longest) {
        String wanted = rules.member(name, longest);
        return members.has(wanted) ? rules.member(name, longest - 2) : wanted;
    }

    private static String faultName(ApiFault fault) {
        return fault.detail().xmlName() == null
                ? fault.detail().name()
                : fault.detail().xmlName().getLocalPart();
    }

    private void element(QName element, ApiElement declared) {
        if (declared.isAbstract()) {
            return;
        }
        String name = records.make(rules.spelled(element.getLocalPart(), "record"), "");
        add(
                builder.element(name, element, declared),
                members.make(memberName(element.getLocalPart(), CobolNames.LONGEST_MEMBER), ""));
    }

    private String add(RecordLayout record, String member) {
        memberOf.put(record, member);
        return " " + record.name() + " (" + record.length() + " bytes)";
    }

    @Override
    public List<RecordLayout> records() {
        return List.copyOf(memberOf.keySet());
    }

    @Override
    public List<ProposedRule> proposed() {
        return rooms.asked().stream()
                .map(asked -> new ProposedRule(
                        asked.subject().designator(),
                        Map.of(CobolNames.LANGUAGE + "." + asked.key(), String.valueOf(asked.value())),
                        ""))
                .toList();
    }

    /**
     * The clashes of components. That one stands in several places of a record is none: its fields are told apart by numbers, which are
     * others in every record.
     */
    @Override
    public List<Clash> clashes() {
        Set<String> fields = records().stream().map(RecordLayout::name).collect(Collectors.toSet());
        return naming.clashes().stream()
                .filter(clash ->
                        !fields.contains(clash.where()) || !clash.other().isNumbered())
                .toList();
    }

    /** In each record fields have names of their own: one that is free in some of them can be another's in others. */
    @Override
    public List<Clash> choices() {
        Map<String, Map<String, String>> given = naming.given().byScope();
        return clashes().stream()
                .filter(clash -> given.values().stream()
                        .noneMatch(names -> names.containsKey(clash.other().designator())
                                && !clash.given().equals(names.get(clash.other().designator()))
                                && names.containsValue(clash.given())))
                .toList();
    }

    @Override
    public GivenNames names() {
        return naming.given();
    }

    @Override
    public List<Finding> findings() {
        return findings.sorted();
    }

    @Override
    public Outline outline() {
        return new Outline(services, interfaces, memberOf.size(), 0, List.of());
    }

    @Override
    public List<SourceFile> emit(Set<Product> products, boolean embedded, Supplier<List<String>> documents) {
        List<SourceFile> files = new ArrayList<>();
        if (!interfaces.isEmpty()) {
            RecordLayout status = new StatusLayout().record();
            files.add(CopybookEmitter.emit(STATUS + ".cpy", status, "How a call went"));
            RecordLayout head = new HeadLayout().record();
            files.add(CopybookEmitter.emit(HEAD + ".cpy", head, "What stands before each of several requests"));
        }
        if (products.contains(Product.CLIENT) && !interfaces.isEmpty()) {
            files.add(Routine.CALLSERV.file());
            files.add(Routine.CALLBTCH.file());
        }
        if (products.contains(Product.SERVER) && !interfaces.isEmpty()) {
            files.add(Routine.NEXTSERV.file());
        }
        memberOf.forEach((record, member) -> files.add(CopybookEmitter.emit(member + ".cpy", record, about(record))));
        if (products.contains(Product.FREE_FORM)) {
            files.replaceAll(CobolFile::free);
        }
        return files;
    }

    private static String about(RecordLayout record) {
        return switch (record.part()) {
            case REQUEST -> "Request of " + record.operation().name();
            case RESPONSE -> "Response of " + record.operation().name();
            case FAULT ->
                "Fault " + faultName(record.fault()) + " of "
                        + record.operation().name();
            case STATUS -> record.name();
            case ELEMENT -> "Element " + record.element().getLocalPart();
        };
    }

    @Override
    public List<Beginning> scaffold(Set<Product> products, boolean embedded) {
        List<Beginning> programs = new ArrayList<>();
        for (Outline.Interface type : interfaces) {
            Map<RecordLayout, String> own = new LinkedHashMap<>(memberOf);
            own.keySet().removeIf(record -> !type.api().operations().contains(record.operation()));
            String about = type.api().name().getLocalPart();
            if (!own.isEmpty() && products.contains(Product.CLIENT)) {
                programs.add(ProgramEmitter.client(type.name(), about, own));
            }
            if (!own.isEmpty() && products.contains(Product.SERVER)) {
                programs.add(ProgramEmitter.server(servers.get(type.api()), about, own));
            }
        }
        if (products.contains(Product.FREE_FORM)) {
            programs.replaceAll(ProgramEmitter::free);
        }
        return programs;
    }

    @Override
    public List<SourceFile> project(String sources) {
        return List.of();
    }

    @Override
    public String next() {
        return "";
    }

    @Override
    public Surface surface() {
        return CobolSurface.of(records());
    }

    /** Records need no compiler: what becomes of a message is seen by filling them and reading them again. */
    @Override
    public Toolchain.Types compiled(Set<QName> known) {
        return new Toolchain.Types() {
            @Override
            public byte[] again(byte[] message) throws Toolchain.Refused {
                Findings wrong = new Findings();
                byte[] after = new RecordTrip(records(), wrong).again(message);
                if (wrong.hasErrors()) {
                    throw new Toolchain.Refused(
                            wrong.sorted().stream()
                                    .map(finding -> finding.message()
                                            + (finding.cure().isEmpty()
                                                    ? ""
                                                    : " (" + Setting.in(finding.cure(), word -> word) + ")"))
                                    .collect(Collectors.joining("; ")),
                            1,
                            1,
                            "");
                }
                return after;
            }

            @Override
            public void close() {}
        };
    }
}
