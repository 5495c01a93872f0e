package org.protypos.target.java;

import java.util.EnumSet;
import java.util.Set;
import org.protypos.api.Api;
import org.protypos.target.LoweredApi;
import org.protypos.target.Product;
import org.protypos.target.Target;
import org.protypos.target.TargetNames;
import org.protypos.target.Toolchain;
import org.protypos.target.Wishes;
import org.protypos.target.classes.Planner;
import org.protypos.target.java.text.JavaNames;

/** Turns an API into Java source. The door of this package. */
public final class JavaTarget implements Target {

    @Override
    public String name() {
        return JavaNames.LANGUAGE;
    }

    @Override
    public String title() {
        return "Java";
    }

    @Override
    public TargetNames rules() {
        return new JavaNames();
    }

    @Override
    public Set<Product> products() {
        return EnumSet.complementOf(EnumSet.of(Product.FREE_FORM));
    }

    @Override
    public Toolchain toolchain() {
        return new JavaToolchain();
    }

    @Override
    public LoweredApi lower(Api api, Wishes wishes) {
        return new JavaApi(Planner.plan(api, new JavaNames(), wishes));
    }
}
