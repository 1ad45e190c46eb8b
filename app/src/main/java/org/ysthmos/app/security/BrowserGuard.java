package org.ysthmos.app.security;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.URI;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.ysthmos.app.Settings;

/**
 * Refuses calls under a host name that is not ours (a page that rebinds its name to this machine),
 * and changes asked for by a page of another origin. Sets the headers that keep our own pages from
 * loading anything from elsewhere.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE)
class BrowserGuard extends OncePerRequestFilter {

  private static final List<String> READING = List.of("GET", "HEAD", "OPTIONS");
  private static final String POLICY =
      "default-src 'self'; style-src 'self' 'unsafe-inline'; img-src 'self' data:;"
          + " frame-ancestors 'none'; base-uri 'none'; form-action 'self'";

  private final List<String> hosts;

  BrowserGuard(Settings settings) {
    this.hosts = settings.hosts();
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    if (!hosts.contains(request.getServerName())) {
      refuse(response, 421, "This host name is not served here.");
      return;
    }
    if (!READING.contains(request.getMethod()) && isFromElsewhere(request)) {
      refuse(response, 403, "Changes are taken only from the application's own pages.");
      return;
    }
    response.setHeader("Content-Security-Policy", POLICY);
    response.setHeader("X-Content-Type-Options", "nosniff");
    response.setHeader("Referrer-Policy", "no-referrer");
    chain.doFilter(request, response);
  }

  private static boolean isFromElsewhere(HttpServletRequest request) {
    String origin = request.getHeader("Origin");
    return origin != null && !host(origin).equals(Optional.ofNullable(request.getHeader("Host")));
  }

  private static Optional<String> host(@Nullable String origin) {
    try {
      return Optional.ofNullable(URI.create(String.valueOf(origin)).getAuthority());
    } catch (IllegalArgumentException unreadable) {
      return Optional.empty();
    }
  }

  private static void refuse(HttpServletResponse response, int status, String detail)
      throws IOException {
    response.setStatus(status);
    response.setContentType("application/problem+json");
    response
        .getWriter()
        .write("{\"title\":\"Refused\",\"status\":" + status + ",\"detail\":\"" + detail + "\"}");
  }
}
