package org.ysthmos.app.backup;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import java.io.IOException;
import java.io.InputStream;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.PosixFilePermissions;
import java.sql.Connection;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.DateTimeException;
import java.time.Instant;
import java.util.Enumeration;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import java.util.zip.CRC32;
import java.util.zip.CheckedInputStream;
import java.util.zip.Deflater;
import java.util.zip.ZipEntry;
import java.util.zip.ZipException;
import java.util.zip.ZipFile;
import java.util.zip.ZipOutputStream;
import org.ysthmos.app.command.Refused;

/**
 * A backup: a ZIP file with what it is ({@code backup.json}), the database, the key of the secrets
 * in it, and what was dropped and may not have been read. Whoever has it has the secrets, so it is
 * made readable for its owner alone.
 */
final class BackupFile {

  static final String DATABASE = "ysthmos.mv.db";
  static final String KEY = "secret.key";
  static final String DROPS = "drops/";

  private static final String WHAT = "backup.json";
  private static final int FORM = 1;
  private static final JsonMapper JSON = new JsonMapper();

  private BackupFile() {}

  /**
   * Takes one.
   *
   * @param database the database of the data folder; others may write to it meanwhile
   * @param file becomes the backup once all of it is on the disk; one that is there is replaced
   * @param taken when it is taken: what is written later is not in it
   */
  static void take(Connection database, Path data, Path file, Instant taken)
      throws IOException, SQLException {
    Path part = beside(file, ".part");
    Path copy = beside(file, ".database");
    try {
      create(part);
      try (ZipOutputStream zip = new ZipOutputStream(Files.newOutputStream(part))) {
        // Much of it is compressed already.
        zip.setLevel(Deflater.BEST_SPEED);
        put(zip, WHAT, what(taken));
        // First what may be read into the database meanwhile, so that it is in one at least.
        for (Path dropped : dropped(data)) {
          putFile(zip, name(data, dropped), dropped);
        }
        if (Files.exists(data.resolve(KEY))) {
          putFile(zip, KEY, data.resolve(KEY));
        }
        putDatabase(zip, database, copy);
      }
      try (FileChannel written = FileChannel.open(part, StandardOpenOption.WRITE)) {
        written.force(true);
      }
      Files.move(part, file, StandardCopyOption.REPLACE_EXISTING);
    } finally {
      Files.deleteIfExists(part);
      Files.deleteIfExists(copy);
    }
  }

  private static Path beside(Path file, String ending) {
    return file.resolveSibling(file.getFileName() + ending);
  }

  private static void create(Path file) throws IOException {
    Files.deleteIfExists(file);
    Files.createFile(
        file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
  }

  private static byte[] what(Instant taken) throws IOException {
    return JSON.writeValueAsBytes(
        JSON.createObjectNode()
            .put("of", "ysthmos")
            .put("form", FORM)
            .put("taken", taken.toString()));
  }

  private static List<Path> dropped(Path data) throws IOException {
    Path drops = data.resolve(DROPS);
    if (!Files.isDirectory(drops)) {
      return List.of();
    }
    try (Stream<Path> all = Files.walk(drops)) {
      return all.filter(Files::isRegularFile).sorted().toList();
    }
  }

  private static String name(Path data, Path file) {
    return data.relativize(file).toString().replace('\\', '/');
  }

  private static void put(ZipOutputStream zip, String name, byte[] bytes) throws IOException {
    zip.putNextEntry(new ZipEntry(name));
    zip.write(bytes);
    zip.closeEntry();
  }

  private static void putFile(ZipOutputStream zip, String name, Path file) throws IOException {
    try (InputStream in = Files.newInputStream(file)) {
      putAll(zip, name, in);
    } catch (NoSuchFileException taken) {
      // Whoever took it away after it was read did so before the database is copied.
      return;
    }
  }

  private static void putAll(ZipOutputStream zip, String name, InputStream in) throws IOException {
    zip.putNextEntry(new ZipEntry(name));
    in.transferTo(zip);
    zip.closeEntry();
  }

  /** The database makes a copy that is whole, whoever writes to it meanwhile. */
  private static void putDatabase(ZipOutputStream zip, Connection database, Path copy)
      throws IOException, SQLException {
    create(copy);
    try (PreparedStatement backup = database.prepareStatement("BACKUP TO ?")) {
      backup.setString(1, copy.toString());
      backup.execute();
    }
    try (ZipFile copied = new ZipFile(copy.toFile());
        InputStream in = copied.getInputStream(copied.getEntry(DATABASE))) {
      putAll(zip, DATABASE, in);
    }
  }

  /**
   * When a backup was taken.
   *
   * @throws Refused if the file is none, or is damaged
   */
  static Instant taken(Path file) {
    try (ZipFile zip = new ZipFile(file.toFile())) {
      ZipEntry entry = zip.getEntry(WHAT);
      if (entry == null || zip.getEntry(DATABASE) == null) {
        throw new Refused(file + " is a ZIP file, but no backup of Ysthmos.");
      }
      JsonNode what = JSON.readTree(zip.getInputStream(entry));
      if (what.path("form").asInt() != FORM) {
        throw new Refused(
            file + " was made by a newer version. Restore it with that version or a later one.");
      }
      return Instant.parse(what.path("taken").asText());
    } catch (NoSuchFileException e) {
      throw new Refused("There is no file " + file + ".", e);
    } catch (ZipException e) {
      throw new Refused(file + " is no ZIP file, or is not whole: " + e.getMessage(), e);
    } catch (IOException | DateTimeException e) {
      throw new Refused(file + " cannot be read: " + e.getMessage(), e);
    }
  }

  /**
   * Lays what is in a backup into a folder; each part is held against its checksum.
   *
   * @throws Refused if it is damaged
   */
  static void unpack(Path file, Path folder) throws IOException {
    try (ZipFile zip = new ZipFile(file.toFile())) {
      Enumeration<? extends ZipEntry> entries = zip.entries();
      while (entries.hasMoreElements()) {
        ZipEntry entry = entries.nextElement();
        Optional<Path> to = place(folder, entry.getName());
        if (to.isPresent()) {
          Files.createDirectories(to.get().getParent());
          create(to.get());
          copyWhole(zip, entry, to.get());
        }
      }
    } catch (ZipException e) {
      throw new Refused(file + " is damaged: " + e.getMessage(), e);
    }
  }

  private static void copyWhole(ZipFile zip, ZipEntry entry, Path to) throws IOException {
    try (CheckedInputStream in = new CheckedInputStream(zip.getInputStream(entry), new CRC32())) {
      Files.copy(in, to, StandardCopyOption.REPLACE_EXISTING);
      if (in.getChecksum().getValue() != entry.getCrc()) {
        throw new ZipException(entry.getName() + " is not what was written");
      }
    }
  }

  /** Where a part belongs; empty for what is none of ours, or would lie outside. */
  private static Optional<Path> place(Path folder, String name) {
    Path to = folder.resolve(name).normalize();
    boolean ours = name.equals(DATABASE) || name.equals(KEY) || name.startsWith(DROPS);
    return ours && to.startsWith(folder) ? Optional.of(to) : Optional.empty();
  }
}
