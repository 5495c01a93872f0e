package org.protypos.target.csharp;

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
import org.protypos.target.csharp.text.CSharpNames;

/** Turns an API into C# 7.3 source for .NET Standard 2.0. The door of this package. */
public final class CSharpTarget implements Target {

    @Override
    public String name() {
        return CSharpNames.LANGUAGE;
    }

    @Override
    public String title() {
        return "C#";
    }

    @Override
    public TargetNames rules() {
        return new CSharpNames();
    }

    @Override
    public Set<Product> products() {
        return EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER);
    }

    @Override
    public Toolchain toolchain() {
        return new CSharpToolchain();
    }

    @Override
    public LoweredApi lower(Api api, Wishes wishes) {
        return new CSharpApi(Planner.plan(api, new CSharpNames(), wishes));
    }
}
