package org.protypos.target.cobol;

import java.util.EnumSet;
import java.util.Set;
import org.protypos.api.Api;
import org.protypos.target.LoweredApi;
import org.protypos.target.Product;
import org.protypos.target.Target;
import org.protypos.target.TargetNames;
import org.protypos.target.Toolchain;
import org.protypos.target.Wishes;

/** Turns an API into COBOL: records of fixed length in copybooks, and programs to go on with. The door of this package. */
public final class CobolTarget implements Target {
    @Override
    public String name() {
        return CobolNames.LANGUAGE;
    }

    @Override
    public String title() {
        return "COBOL";
    }

    @Override
    public TargetNames rules() {
        return new CobolNames();
    }

    @Override
    public Set<Product> products() {
        return EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER, Product.FREE_FORM);
    }

    @Override
    public Toolchain toolchain() {
        return new CobolToolchain();
    }

    @Override
    public LoweredApi lower(Api api, Wishes wishes) {
        return new CobolApi(api, new CobolNames(), wishes);
    }
}
