package org.protypos.runtime.attach;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Random;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Packed messages, as the platform writes them and as RFC 1952 allows them. */
class GzipTest {
    private static byte[] unpacked(byte[] packed, int piece) throws IOException {
        InputStream slow = new ByteArrayInputStream(packed) {
            @Override
            public synchronized int read(byte[] bytes, int offset, int count) {
                return super.read(bytes, offset, Math.min(piece, count));
            }
        };
        try (InputStream in = Gzip.open(slow)) {
            return in.readAllBytes();
        }
    }

    private static byte[] joined(byte[]... pieces) {
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        for (byte[] piece : pieces) {
            all.writeBytes(piece);
        }
        return all.toByteArray();
    }

    private static byte[] random(Random random, int length) {
        byte[] bytes = new byte[length];
        random.nextBytes(bytes);
        // Half of it can be packed.
        Arrays.fill(bytes, 0, length / 2, (byte) 'a');
        return bytes;
    }

    @Test
    void membersFollowEachOther() throws IOException {
        Random random = new Random(20270901);
        for (int i = 0; i < 200; i++) {
            byte[] packed = new byte[0];
            byte[] wanted = new byte[0];
            for (int member = random.nextInt(4); member >= 0; member--) {
                byte[] piece = random(random, random.nextInt(4) * random.nextInt(20_000));
                wanted = joined(wanted, piece);
                packed = joined(packed, Gzip.pack(piece));
            }
            assertThat(unpacked(joined(packed, new byte[random.nextInt(3)]), 1 + random.nextInt(10_000)))
                    .isEqualTo(wanted);
        }
        byte[] empty = Gzip.pack(new byte[0]);
        ByteArrayOutputStream many = new ByteArrayOutputStream();
        for (int i = 0; i < 50_000; i++) {
            many.writeBytes(empty);
        }
        many.writeBytes(Gzip.pack("tide".getBytes(StandardCharsets.UTF_8)));
        assertThat(unpacked(many.toByteArray(), 1000))
                .asString(StandardCharsets.UTF_8)
                .isEqualTo("tide");
    }

    /** Everything that may stand in the head of a member (section 2.3). */
    @Test
    void theHeadMayHoldMore() throws IOException {
        byte[] content = "the tide is low".getBytes(StandardCharsets.UTF_8);
        Deflater deflater = new Deflater(9, true);
        deflater.setInput(content);
        deflater.finish();
        byte[] body = new byte[100];
        int length = deflater.deflate(body);
        deflater.end();
        CRC32 sum = new CRC32();
        sum.update(content);
        byte[] tail = new byte[8];
        for (int i = 0; i < 4; i++) {
            tail[i] = (byte) (sum.getValue() >> 8 * i);
            tail[4 + i] = (byte) (content.length >> 8 * i);
        }
        for (int flags = 0; flags < 32; flags++) {
            byte[] head = joined(
                    new byte[] {0x1f, (byte) 0x8b, 8, (byte) flags, 1, 2, 3, 4, 0, 3},
                    (flags & 4) != 0 ? joined(new byte[] {44, 1}, new byte[300]) : new byte[0],
                    (flags & 8) != 0 ? "tide.xml\0".getBytes(StandardCharsets.UTF_8) : new byte[0],
                    (flags & 16) != 0 ? "low\0".getBytes(StandardCharsets.UTF_8) : new byte[0],
                    (flags & 2) != 0 ? new byte[] {5, 6} : new byte[0]);
            byte[] packed = joined(head, Arrays.copyOf(body, length), tail);
            assertThat(unpacked(joined(packed, packed), 7)).isEqualTo(joined(content, content));
        }
    }

    @Test
    void damageIsTold() throws IOException {
        byte[] content = random(new Random(7), 300);
        byte[] packed = Gzip.pack(content);
        int refused = 0;
        for (int i = 0; i < packed.length; i++) {
            byte[] cut = Arrays.copyOf(packed, i);
            assertThatThrownBy(() -> unpacked(cut, 1000)).as("%s bytes", i).hasMessage("the packed data end too early");
            byte[] changed = packed.clone();
            changed[i] ^= 0x40;
            // Not every bit is a part of the content.
            try {
                assertThat(unpacked(changed, 1000)).as("byte %s", i).isEqualTo(content);
            } catch (IOException e) {
                refused++;
            }
        }
        assertThat(refused).isGreaterThan(packed.length - 10);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "gzip | true",
                "X-GZip | true",
                "identity, gzip | true",
                "'' | false",
                "identity | false",
                "utf-8 | false",
                "gzip, gzip | it is packed with \"gzip, gzip\"; gzip alone can be read",
                "br | it is packed with \"br\"; gzip alone can be read"
            })
    void whatTheHeadOfTheMessageSays(String encoding, String wanted) {
        String told;
        try {
            told = String.valueOf(Gzip.packs(encoding));
        } catch (IOException e) {
            told = e.getMessage();
        }
        assertThat(told).isEqualTo(wanted);
    }
}
