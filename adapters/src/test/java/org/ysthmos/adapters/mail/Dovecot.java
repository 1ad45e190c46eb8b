package org.ysthmos.adapters.mail;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import org.ysthmos.adapters.DebianServer;

/**
 * A Dovecot of a test's own, with mailboxes as folders (Maildir++), in which any name signs in with
 * the password {@code s3cret}.
 */
final class Dovecot implements AutoCloseable {

  private final Path folder;
  private final int port;
  private final DebianServer server;

  private Dovecot(Path folder, int port, DebianServer server) {
    this.folder = folder;
    this.port = port;
    this.server = server;
  }

  /**
   * @param tls what its configuration says of TLS
   */
  static Dovecot start(Path folder, String tls) throws Exception {
    Path program = DebianServer.need("dovecot");
    int port = DebianServer.freePort();
    String me = System.getProperty("user.name");
    boolean root = me.equals("root");
    String mine = "default_internal_user = %1$s\ndefault_login_user = %1$s\n".formatted(me);
    open(folder);
    Path configuration =
        Files.writeString(
            folder.resolve("dovecot.conf"),
            """
            protocols = imap
            listen = 127.0.0.1
            base_dir = %1$s/run
            state_dir = %1$s/run
            log_path = %1$s/log
            %5$s
            disable_plaintext_auth = no
            mail_location = maildir:%1$s/mail/%%u
            first_valid_uid = 0
            %2$s
            service anvil {
              chroot =
            }
            service imap-login {
              chroot =
              inet_listener imap {
                address = 127.0.0.1
                port = %3$d
              }
              inet_listener imaps {
                port = 0
              }
            }
            passdb {
              driver = static
              args = password=s3cret
            }
            userdb {
              driver = static
              args = %4$shome=%1$s/mail/%%u
            }
            """
                .formatted(
                    folder, root ? "" : mine, port, root ? "uid=nobody gid=nogroup " : "", tls));
    DebianServer server =
        DebianServer.start(
            port,
            folder.resolve("out"),
            List.of(program.toString(), "-F", "-c", configuration.toString()));
    return new Dovecot(folder, port, server);
  }

  int port() {
    return port;
  }

  /** Makes a mailbox with an empty INBOX. */
  void mailbox(String user) throws Exception {
    open(folder.resolve("mail"));
    open(folder.resolve("mail").resolve(user));
    box(user, "INBOX");
  }

  /**
   * The folder on the disk of a folder of a mailbox, which is made.
   *
   * @param name as it is written on the disk: in modified UTF-7 (RFC 3501 section 5.1.3)
   */
  Path box(String user, String name) throws Exception {
    Path at = folder.resolve("mail").resolve(user);
    Path box = name.equals("INBOX") ? at : open(at.resolve("." + name));
    for (String part : List.of("cur", "new", "tmp")) {
      open(box.resolve(part));
    }
    return box;
  }

  /** Puts a mail into a folder, whole at once. */
  void put(String user, String box, String file, byte[] source) throws Exception {
    Path mail = box(user, box).resolve("tmp").resolve(file);
    Files.write(mail, source);
    Files.setPosixFilePermissions(mail, PosixFilePermissions.fromString("rw-rw-rw-"));
    Files.move(mail, box(user, box).resolve("new").resolve(file));
  }

  void put(String user, String box, String file, String source) throws Exception {
    put(user, box, file, source.replace("\n", "\r\n").getBytes(StandardCharsets.UTF_8));
  }

  private static Path open(Path folder) throws Exception {
    Files.createDirectories(folder);
    return Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwxrwxrwx"));
  }

  @Override
  public void close() throws InterruptedException {
    server.close();
  }
}
