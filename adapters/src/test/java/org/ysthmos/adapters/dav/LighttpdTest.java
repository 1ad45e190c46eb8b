package org.ysthmos.adapters.dav;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import org.ysthmos.adapters.DebianServer;

/** Debian's lighttpd with its mod_webdav: tags are strong, creation dates move with the content. */
class LighttpdTest extends WebDavServerTest {

  @Override
  DebianServer serve(Path at, int on) throws Exception {
    Path program = DebianServer.need("lighttpd");
    Path config = at.resolve("config");
    Files.writeString(
        config,
        """
        server.modules = ( "mod_webdav" )
        server.document-root = "%1$s/files"
        server.bind = "127.0.0.1"
        server.port = %2$d
        webdav.activate = "enable"
        webdav.is-readonly = "disable"
        webdav.sqlite-db-name = "%1$s/properties.db"
        mimetype.assign = ( ".txt" => "text/plain" )
        etag.use-inode = "enable"
        """
            .formatted(at, on));
    return DebianServer.start(
        on, at.resolve("log"), List.of(program.toString(), "-D", "-f", config.toString()));
  }
}
