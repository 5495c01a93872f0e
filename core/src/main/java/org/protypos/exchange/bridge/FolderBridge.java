package org.protypos.exchange.bridge;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.List;
import java.util.function.BiConsumer;
import java.util.stream.Stream;

/**
 * Carries the requests that are put into a folder: {@code NAME.req} is answered with {@code NAME.ans} and called {@code
 * NAME.done} then.
 */
public final class FolderBridge {
    /** How files with requests end. */
    public static final String REQUEST = ".req";

    static final String ANSWER = ".ans";
    private static final String DONE = ".done";

    private final RecordBridge bridge;
    private final Path folder;

    /** Begins. */
    public FolderBridge(RecordBridge bridge, Path folder) {
        this.bridge = bridge;
        this.folder = folder;
    }

    /**
     * Carries all that is there now, in the order of its names.
     *
     * @param told is told operation and result of each request
     * @param failed is told the name of a file that could not be carried to its end, and why
     * @return how many files there were
     * @throws IOException when the folder cannot be read
     */
    public int carry(BiConsumer<String, String> told, BiConsumer<String, String> failed) throws IOException {
        List<Path> requests;
        try (Stream<Path> all = Files.list(folder)) {
            requests = all.filter(file -> file.getFileName().toString().endsWith(REQUEST))
                    .sorted()
                    .toList();
        }
        for (Path request : requests) {
            try {
                file(request, told);
            } catch (IOException e) {
                failed.accept(request.getFileName().toString(), String.valueOf(e.getMessage()));
            }
        }
        return requests.size();
    }

    private void file(Path request, BiConsumer<String, String> told) throws IOException {
        String file = request.getFileName().toString();
        String name = file.substring(0, file.length() - REQUEST.length());
        // First of all it is taken away: whatever happens, nothing of it is done twice.
        Path taken = Files.move(request, folder.resolve(name + DONE), StandardCopyOption.REPLACE_EXISTING);
        bridge.carry(taken, folder.resolve(name + ANSWER), told);
    }
}
