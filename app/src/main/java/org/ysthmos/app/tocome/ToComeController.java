package org.ysthmos.app.tocome;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.HexFormat;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.transaction.support.TransactionTemplate;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.ysthmos.adapters.feed.CalendarFeed;
import org.ysthmos.app.Settings;
import org.ysthmos.app.problem.ApiProblem;
import org.ysthmos.app.time.AppClock;

/** What bridges will make and when: for the screens, and as a calendar to subscribe to. */
@RestController
class ToComeController {

  private static final String FEED = "to-come";
  private static final int LONGEST = 62;
  private static final Duration FEED_BACK = Duration.ofDays(7);
  private static final Duration FEED_AHEAD = Duration.ofDays(90);
  private static final int SECRET_BYTES = 24;

  /**
   * Days of what is to come, and of what came.
   *
   * @param from the first of the days, in the zone of the application
   * @param cut whether there are more than are told of
   */
  record ToComeView(LocalDate from, int days, List<ToCome.TimeEntry> entries, boolean cut) {}

  /** The address of the calendar; empty if there is none. */
  record FeedView(String address) {}

  private final ToCome toCome;
  private final FeedMapper mapper;
  private final TransactionTemplate transaction;
  private final Settings settings;
  private final AppClock clock;
  private final SecureRandom random = new SecureRandom();

  ToComeController(
      ToCome toCome,
      FeedMapper mapper,
      TransactionTemplate transaction,
      Settings settings,
      AppClock clock) {
    this.toCome = toCome;
    this.mapper = mapper;
    this.transaction = transaction;
    this.settings = settings;
    this.clock = clock;
  }

  /**
   * What is to come in some days, and what came of those that are over.
   *
   * @param from the first of them; today if it is not given
   */
  @GetMapping(path = "/api/to-come", produces = MediaType.APPLICATION_JSON_VALUE)
  ToComeView days(
      @RequestParam(required = false) @Nullable LocalDate from,
      @RequestParam(defaultValue = "7") int days) {
    if (days < 1 || days > LONGEST) {
      throw new ApiProblem(
          HttpStatus.BAD_REQUEST,
          "How many days",
          "Ask for 1 to %d days, not for %d.".formatted(LONGEST, days));
    }
    LocalDate first = from == null ? LocalDate.ofInstant(clock.instant(), settings.zone()) : from;
    ToCome.All all =
        toCome.between(
            first.atStartOfDay(settings.zone()).toInstant(),
            first.plusDays(days).atStartOfDay(settings.zone()).toInstant().minusNanos(1));
    return new ToComeView(first, days, all.entries(), all.cut());
  }

  /** The secret address under which it can be subscribed to. */
  @GetMapping(path = "/api/to-come/address", produces = MediaType.APPLICATION_JSON_VALUE)
  FeedView address() {
    String secret = mapper.secret(FEED);
    return new FeedView(secret == null ? "" : address(secret));
  }

  /** Makes an address; one that was there is good for nothing from then on. */
  @PostMapping(path = "/api/to-come/address", produces = MediaType.APPLICATION_JSON_VALUE)
  FeedView makeAddress() {
    byte[] bytes = new byte[SECRET_BYTES];
    random.nextBytes(bytes);
    String secret = HexFormat.of().formatHex(bytes);
    Instant now = clock.instant();
    transaction.executeWithoutResult(
        status -> {
          mapper.remove(FEED);
          mapper.add(FEED, secret, now);
        });
    return new FeedView(address(secret));
  }

  /** From now on there is no address. */
  @DeleteMapping(path = "/api/to-come/address", produces = MediaType.APPLICATION_JSON_VALUE)
  FeedView removeAddress() {
    mapper.remove(FEED);
    return new FeedView("");
  }

  private String address(String secret) {
    return settings.address() + "/feeds/" + secret + "/to-come.ics";
  }

  /**
   * The calendar: a week back and ninety days ahead.
   *
   * @throws ApiProblem if the secret is not the one of now
   */
  @GetMapping(path = "/feeds/{secret}/to-come.ics", produces = "text/calendar;charset=UTF-8")
  ResponseEntity<byte[]> feed(@PathVariable String secret) {
    String known = mapper.secret(FEED);
    if (known == null || !MessageDigest.isEqual(bytes(known), bytes(secret))) {
      throw ApiProblem.notFound("calendar", "of this address");
    }
    Instant now = clock.instant();
    List<CalendarFeed.Entry> entries =
        toCome.between(now.minus(FEED_BACK), now.plus(FEED_AHEAD)).entries().stream()
            .map(this::entry)
            .toList();
    return ResponseEntity.ok()
        .cacheControl(CacheControl.maxAge(CalendarFeed.REFRESHED).cachePrivate())
        .body(bytes(CalendarFeed.write("Ysthmos: what is to come", entries, now)));
  }

  private CalendarFeed.Entry entry(ToCome.TimeEntry entry) {
    StringBuilder about =
        new StringBuilder("Made at %s by %s".formatted(entry.system(), entry.bridgeName()));
    if (!entry.person().isEmpty()) {
      about.append(", for ").append(entry.person());
    }
    if (!entry.what().isEmpty()) {
      about.append(". ").append(entry.what());
    }
    String page =
        entry.trace().isEmpty() ? "/bridges/" + entry.bridge() : "/traces/" + entry.trace();
    return new CalendarFeed.Entry(
        entry.uid() + "@" + settings.address().getHost(),
        entry.at(),
        entry.title(),
        about.toString(),
        settings.address() + page);
  }

  private static byte[] bytes(String text) {
    return text.getBytes(StandardCharsets.UTF_8);
  }
}
