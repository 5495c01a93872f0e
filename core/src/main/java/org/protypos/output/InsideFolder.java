package org.protypos.output;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.InvalidPathException;
import java.nio.file.Path;
import org.protypos.diagnostic.Printable;

/**
 * Paths that come from a file, which anybody may have written: each must lie inside of a folder, as it is written and as the
 * disk has it.
 */
public final class InsideFolder {
    private static final int LONGEST = 4_000;

    private InsideFolder() {}

    /**
     * Says what is wrong with a path as it is written.
     *
     * @param path the path, relative to some folder, with slashes
     * @return why it does not lie inside, or null
     */
    public static String complaint(String path) {
        if (path == null || path.isBlank() || path.length() > LONGEST) {
            return "is no path";
        }
        if (path.startsWith("/") || path.startsWith("~") || isOnDrive(path)) {
            return "is no path inside of the folder";
        }
        for (String step : path.split("/", -1)) {
            if (step.equals("..") || step.equals(".") || step.isEmpty()) {
                return step.equals("..") ? "leads out of the folder" : "has an empty step";
            }
        }
        for (int i = 0; i < path.length(); i++) {
            char c = path.charAt(i);
            if (c < ' ' || c == '\\' || c == 0x7F) {
                return "holds a character that no path of ours has";
            }
        }
        try {
            return Path.of(path).isAbsolute() ? "is no path inside of the folder" : null;
        } catch (InvalidPathException e) {
            return "is no path";
        }
    }

    private static boolean isOnDrive(String path) {
        char first = Character.toLowerCase(path.charAt(0));
        return first >= 'a' && first <= 'z' && path.startsWith(":", 1);
    }

    /**
     * Says what is wrong with a path on the disk: a link on the way leads anywhere.
     *
     * @param folder the folder, which may itself be reached by a link
     * @return why it does not lie inside, or null
     */
    public static String complaint(Path folder, String path) {
        String written = complaint(path);
        if (written != null) {
            return written;
        }
        Path at = folder;
        for (Path step : Path.of(path)) {
            at = at.resolve(step);
            if (Files.isSymbolicLink(at)) {
                return "leads through the link " + folder.relativize(at);
            }
        }
        return null;
    }

    /**
     * Holds a path as it is written to what lies inside of a folder; on the disk nothing is there yet.
     *
     * @throws IOException when it does not lie inside; the message says why
     */
    static void require(Path folder, String path) throws IOException {
        refuse(folder, path, complaint(path));
    }

    /**
     * The place of a path.
     *
     * @throws IOException when it does not lie inside of the folder; the message says why
     */
    static Path resolve(Path folder, String path) throws IOException {
        refuse(folder, path, complaint(folder, path));
        return folder.resolve(path);
    }

    private static void refuse(Path folder, String path, String complaint) throws IOException {
        if (complaint != null) {
            throw new IOException("\"" + Printable.of(path) + "\" " + complaint + " " + folder);
        }
    }
}
