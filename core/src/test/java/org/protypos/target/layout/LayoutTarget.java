package org.protypos.target.layout;

import java.io.IOException;
import java.nio.file.Path;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.function.Consumer;
import org.protypos.api.Api;
import org.protypos.target.LoweredApi;
import org.protypos.target.Product;
import org.protypos.target.Target;
import org.protypos.target.TargetNames;
import org.protypos.target.Toolchain;
import org.protypos.target.Wishes;

/** A language that has no classes: each message is a record of fixed length. It shows that a language is a package and no more. */
public final class LayoutTarget implements Target {
    static final String NAME = "layout";

    @Override
    public String name() {
        return NAME;
    }

    @Override
    public String title() {
        return "record layouts";
    }

    @Override
    public TargetNames rules() {
        return new LayoutNames();
    }

    @Override
    public Set<Product> products() {
        return EnumSet.of(Product.TYPES);
    }

    @Override
    public LoweredApi lower(Api api, Wishes wishes) {
        return new LayoutApi(api, new LayoutNames(), wishes);
    }

    @Override
    public Toolchain toolchain() {
        return new Toolchain() {
            @Override
            public Missing missing() {
                return new Missing("layouts are not compiled", "read them");
            }

            @Override
            public List<String> example() {
                return List.of();
            }

            @Override
            public String compiles() {
                return "";
            }

            @Override
            public String starts() {
                return "";
            }

            @Override
            public String compile(List<Path> sources, Path into) throws IOException {
                throw new IOException(missing().what());
            }

            @Override
            public void start(Path compiled, Consumer<String> lines) throws IOException {
                throw new IOException(missing().what());
            }
        };
    }
}
