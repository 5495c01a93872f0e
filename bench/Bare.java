import java.nio.file.Files;
import java.nio.file.Path;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamReader;

/**
 * The least that any tool in Java must do: parse documents with StAX and, if asked, write so many files of so many bytes.
 *
 * <p>Arguments: the folder to write into or "-", the number of files, the number of bytes in all, the documents.
 */
public final class Bare {
    private Bare() {}

    public static void main(String[] arguments) throws Exception {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        int elements = 0;
        for (int i = 3; i < arguments.length; i++) {
            try (var stream = Files.newInputStream(Path.of(arguments[i]))) {
                XMLStreamReader reader = factory.createXMLStreamReader(stream);
                while (reader.hasNext()) {
                    elements += reader.next() == XMLStreamReader.START_ELEMENT ? 1 : 0;
                }
            }
        }
        int files = Integer.parseInt(arguments[1]);
        if (!arguments[0].equals("-")) {
            Path folder = Files.createDirectories(Path.of(arguments[0]));
            byte[] bytes = new byte[(int) (Long.parseLong(arguments[2]) / files)];
            for (int i = 0; i < files; i++) {
                Files.write(folder.resolve("File" + i + ".java"), bytes);
            }
        }
        System.out.println(elements + " elements");
    }
}
