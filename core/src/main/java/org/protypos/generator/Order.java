package org.protypos.generator;

import java.nio.file.Path;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;
import org.protypos.project.AdoptedContract;
import org.protypos.project.ProjectContract;
import org.protypos.target.Product;

/**
 * What code is to be made of a contract, and where it goes.
 *
 * @param owner what the contract is called in its project, empty when it is in none
 * @param into the folder for the sources
 * @param scaffold the folder for a beginning of each implementation, or null
 * @param products what to write; types are always among it
 * @param embedded whether the runtime's sources are written too, rather than used as a library
 */
public record Order(String owner, Path into, Path scaffold, Set<Product> products, boolean embedded) {
    public Order {
        products = EnumSet.copyOf(products);
        products.add(Product.TYPES);
    }

    /** Everything that runs on the platform alone, of a contract that is in no project. */
    public static Order into(Path folder) {
        return new Order("", folder, null, EnumSet.of(Product.TYPES, Product.CLIENT, Product.SERVER), true);
    }

    /** What the project file asks for. */
    public static Order of(AdoptedContract adopted) {
        ProjectContract settings = adopted.settings();
        Set<Product> products = EnumSet.of(Product.TYPES);
        for (String product : settings.produce()) {
            products.add(Product.valueOf(product.toUpperCase(Locale.ROOT)));
        }
        if (settings.server().equals("servlet")) {
            products.add(Product.SERVLET);
        }
        if (settings.form().equals("free")) {
            products.add(Product.FREE_FORM);
        }
        return new Order(
                adopted.owner(),
                adopted.into(),
                settings.scaffold() == null
                        ? null
                        : AdoptedContract.near(adopted.project().root().resolve(settings.scaffold())),
                products,
                settings.runtime().equals("embedded"));
    }
}
