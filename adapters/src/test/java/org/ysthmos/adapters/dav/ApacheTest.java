package org.ysthmos.adapters.dav;

import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.util.List;
import java.util.stream.Stream;
import org.ysthmos.adapters.DebianServer;

/** Debian's Apache with its mod_dav: the tag of what was changed within the second is weak. */
class ApacheTest extends WebDavServerTest {

  @Override
  DebianServer serve(Path at, int on) throws Exception {
    Path program = DebianServer.need("apache2");
    Path config = at.resolve("config");
    Files.createDirectories(at.resolve("locks"));
    // It gives up the rights of whoever starts it, and must still be able to write.
    try (Stream<Path> all = Files.walk(at)) {
      for (Path one : all.filter(Files::isDirectory).toList()) {
        Files.setPosixFilePermissions(one, PosixFilePermissions.fromString("rwxrwxrwx"));
      }
    }
    Files.writeString(
        config,
        """
        ServerRoot /usr/lib/apache2
        ServerName 127.0.0.1
        Listen 127.0.0.1:%2$d
        PidFile %1$s/pid
        ErrorLog %1$s/errors
        User www-data
        Group www-data
        LoadModule mpm_event_module modules/mod_mpm_event.so
        LoadModule authz_core_module modules/mod_authz_core.so
        LoadModule mime_module modules/mod_mime.so
        LoadModule dav_module modules/mod_dav.so
        LoadModule dav_fs_module modules/mod_dav_fs.so
        TypesConfig /etc/mime.types
        DocumentRoot %1$s/files
        DavLockDB %1$s/locks/lock
        <Directory %1$s/files>
          Dav On
          Require all granted
        </Directory>
        """
            .formatted(at, on));
    return DebianServer.start(
        on,
        at.resolve("log"),
        List.of(program.toString(), "-D", "FOREGROUND", "-f", config.toString()));
  }
}
