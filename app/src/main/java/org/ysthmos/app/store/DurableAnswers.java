package org.ysthmos.app.store;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Set;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.util.ContentCachingResponseWrapper;

/**
 * Answers a person's change only when it is on the disk: what is said to be kept is kept, whatever
 * happens to the machine right afterwards.
 */
@Component
class DurableAnswers extends OncePerRequestFilter {

  private static final Set<String> CHANGE_NOTHING = Set.of("GET", "HEAD", "OPTIONS");

  private final Journal journal;

  DurableAnswers(Journal journal) {
    this.journal = journal;
  }

  @Override
  protected boolean shouldNotFilter(HttpServletRequest request) {
    return CHANGE_NOTHING.contains(request.getMethod())
        || !request.getRequestURI().startsWith("/api/");
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    ContentCachingResponseWrapper kept = new ContentCachingResponseWrapper(response);
    chain.doFilter(request, kept);
    // An empty change: the disk is forced after it, and what was committed before it with it.
    journal.run(() -> {});
    kept.copyBodyToResponse();
  }
}
