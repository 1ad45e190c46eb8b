package org.ysthmos.app.store;

import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Set;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
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

  /** RFC 4918 section 11.5. */
  private static final int INSUFFICIENT_STORAGE = 507;

  private final Journal journal;
  private final DiskRoom room;
  private final ObjectMapper json;

  DurableAnswers(Journal journal, DiskRoom room, ObjectMapper json) {
    this.journal = journal;
    this.room = room;
    this.json = json;
  }

  private static ProblemDetail full() {
    ProblemDetail problem = ProblemDetail.forStatus(INSUFFICIENT_STORAGE);
    problem.setTitle("The disk is full");
    problem.setDetail(
        "Nothing was changed. Make room on the disk where the data is kept, and try again.");
    return problem;
  }

  @Override
  protected boolean shouldNotFilter(HttpServletRequest request) {
    return CHANGE_NOTHING.contains(request.getMethod())
        || !request.getRequestURI().startsWith("/api/")
        // The time that is set for practice is kept nowhere.
        || request.getRequestURI().equals("/api/clock");
  }

  @Override
  protected void doFilterInternal(
      HttpServletRequest request, HttpServletResponse response, FilterChain chain)
      throws ServletException, IOException {
    if (room.isNone()) {
      response.setStatus(INSUFFICIENT_STORAGE);
      response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
      response.setCharacterEncoding(StandardCharsets.UTF_8.name());
      response.getWriter().write(json.writeValueAsString(full()));
      return;
    }
    ContentCachingResponseWrapper kept = new ContentCachingResponseWrapper(response);
    chain.doFilter(request, kept);
    // An empty change: the disk is forced after it, and what was committed before it with it.
    journal.run(() -> {});
    kept.copyBodyToResponse();
  }
}
