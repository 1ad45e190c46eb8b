package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.SSLPeerUnverifiedException;
import org.apache.hc.client5.http.ConnectTimeoutException;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.core5.http.ClassicHttpRequest;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.apache.hc.core5.http.io.support.ClassicRequestBuilder;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.adapters.system.Trust;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.json.ExactJson;
import org.ysthmos.core.load.RateLimiter;

/**
 * Makes calls to one system and takes each down with its secrets masked. Follows no redirects and
 * never tries again by itself: what to do about a failure is decided elsewhere.
 */
public final class HttpCaller implements AutoCloseable {

  /** The most that is read of an answer, in bytes. */
  static final int LARGEST_ANSWER = 1 << 20;

  /** A text may be larger: a calendar with its pictures, a description of a system. */
  static final int LARGEST_TEXT = 33 << 20;

  /** What is read as it comes is never whole in memory. */
  private static final long LARGEST_STREAM = 1L << 30;

  private static final JsonMapper JSON = ExactJson.mapper();

  /** What a call came to. */
  public sealed interface Answer {}

  /**
   * The system answered.
   *
   * @param retryAfter how long the system asks us to wait
   * @param links the values of the Link headers
   * @param tag the entity tag of what was answered
   * @param challenges how it wants calls to be signed in: the values of the {@code
   *     WWW-Authenticate} headers
   * @param ahead by how much its clock is ahead of ours; zero where that is not known
   */
  public record Answered(
      int status,
      JsonNode body,
      Optional<Duration> retryAfter,
      List<String> links,
      Optional<String> tag,
      List<String> challenges,
      Duration ahead)
      implements Answer {}

  /**
   * The limit of the system leaves no room, so nothing was sent.
   *
   * @param time how long it is until there is room
   */
  public record NoRoom(Duration time) implements Answer {}

  /**
   * The connection could not be made, so nothing was sent.
   *
   * @param trouble with what
   */
  public record NotSent(String why, Trouble trouble) implements Answer {}

  /** What a connection was not made for. */
  public enum Trouble {
    CONNECTION,
    /** Its certificate is not trusted. */
    CERTIFICATE,
    /** What answers there speaks no TLS. */
    NO_TLS
  }

  /** The request may have been sent; no whole answer came. */
  public record NoAnswer(String why) implements Answer {}

  /**
   * A call to make.
   *
   * @param purpose what it is made for
   * @param headers those to send besides the usual ones
   * @param type the media type of the body; not sent without one
   * @param body empty for none
   * @param text whether the answer is read as a text, which stands in a text node then; otherwise
   *     it is JSON
   */
  public record Sending(
      Purpose purpose,
      String method,
      URI address,
      Map<String, String> headers,
      String type,
      String body,
      boolean text) {

    /**
     * @param body the JSON to send; a missing node for none
     */
    static Sending json(
        Purpose purpose, String method, URI address, Map<String, String> headers, JsonNode body) {
      String sent = body.isMissingNode() ? "" : body.toString();
      return new Sending(purpose, method, address, headers, "application/json", sent, false);
    }
  }

  /** How many times the limit of one read a whole call may take. */
  private static final int READS_IN_A_CALL = 3;

  /** A clock that is off by less is taken for right. */
  private static final Duration LEAST_AHEAD = Duration.ofSeconds(5);

  /** How many times that of a whole call an answer may take that is read as it comes. */
  private static final int CALLS_IN_A_STREAM = 10;

  private static final ScheduledExecutorService DEADLINES =
      Executors.newSingleThreadScheduledExecutor(
          Thread.ofPlatform().name("call-deadlines").daemon().factory());

  private final Duration whole;
  private final CallNotes notes;
  private final InstantSource clock;
  private final HttpLimiter room;
  private final Optional<String> signInHeader;
  private final Supplier<Optional<String>> signIn;
  private final CloseableHttpClient client;

  public HttpCaller(SystemDescription system, HttpLimiter room, Surroundings surroundings) {
    this.notes = new CallNotes(system);
    this.room = room;
    this.clock = surroundings.clock();
    this.signInHeader = system.signIn().map(SignIn::header);
    this.signIn =
        () ->
            system
                .signIn()
                .flatMap(how -> surroundings.secrets().apply(how.secret()).map(how::value));
    this.whole = system.timeout().multipliedBy(READS_IN_A_CALL);
    this.client = Clients.open(system, surroundings);
  }

  /** For calls that are no calls to a connected system: not signed in, and without a limit. */
  public static HttpCaller plain(URI address, Surroundings surroundings) {
    return new HttpCaller(
        plainly(address),
        new HttpLimiter(new RateLimiter(Optional.empty()), Optional.empty()),
        surroundings);
  }

  /** Connects to a system over TLS; gives why it could not be connected to. */
  public static Map<String, String> connect(SystemDescription system, Surroundings surroundings) {
    if (!"https".equalsIgnoreCase(system.address().getScheme())) {
      return Map.of();
    }
    try (HttpCaller caller =
        new HttpCaller(
            plainly(system.address()).trusting(system.trust()),
            new HttpLimiter(new RateLimiter(Optional.empty()), Optional.empty()),
            surroundings)) {
      Sending head = new Sending(Purpose.READ, "HEAD", system.address(), Map.of(), "", "", true);
      return caller.call(head, call -> {}) instanceof NotSent not
          ? Map.of("address", not.why())
          : Map.of();
    }
  }

  /** An address as a system that has nothing to be said of it. */
  public static SystemDescription plainly(URI address) {
    return new SystemDescription(
        "address",
        "The address",
        address,
        Optional.empty(),
        Duration.ofSeconds(10),
        Optional.empty(),
        Trust.usual(),
        (system, around) -> {
          throw new IllegalStateException("an address alone has no gateway");
        },
        Map.of(),
        Map.of(),
        Optional.empty());
  }

  /** Makes a call and waits for its answer. */
  public Answer call(Sending sending, CallLog log) {
    return call(sending, Optional.empty(), whole, log);
  }

  /** Reads the body of a good answer while it comes, however long it is. */
  @FunctionalInterface
  public interface BodyReader {
    /**
     * @throws IOException if the connection breaks; what does not fit is the reader's own to keep
     */
    void read(InputStream body) throws IOException;
  }

  /** Makes a call whose answer may be long; the body of a good one is not given, but read. */
  public Answer stream(Sending sending, BodyReader reader, CallLog log) {
    return call(sending, Optional.of(reader), whole.multipliedBy(CALLS_IN_A_STREAM), log);
  }

  private Answer call(Sending sending, Optional<BodyReader> reader, Duration longest, CallLog log) {
    Duration wait = room.take(clock.instant());
    if (!wait.isZero()) {
      return new NoRoom(wait);
    }
    HttpUriRequestBase request = request(sending);
    CallNotes.Begun begun = notes.begin(sending, request, clock.instant());
    // Each read has its own limit; one that comes in drops would never end without one for all.
    ScheduledFuture<?> deadline =
        DEADLINES.schedule(request::cancel, longest.toMillis(), TimeUnit.MILLISECONDS);
    try {
      return client.execute(
          request,
          response -> {
            boolean streamed = reader.isPresent() && response.getCode() / 100 == 2;
            byte[] bytes =
                streamed
                    ? streamed(response.getEntity(), reader.get())
                    : read(response.getEntity(), sending.text() ? LARGEST_TEXT : LARGEST_ANSWER);
            log.called(begun.answered(response, bytes));
            return answered(response, streamed ? new byte[0] : bytes, sending.text());
          });
    } catch (IOException e) {
      String why =
          request.isCancelled()
              ? "no whole answer within " + longest.toSeconds() + " s"
              : e.getClass().getSimpleName() + ": " + e.getMessage();
      log.called(begun.failed(why));
      return wasNotSent(e) ? new NotSent(why, trouble(e)) : new NoAnswer(why);
    } finally {
      deadline.cancel(false);
    }
  }

  private HttpUriRequestBase request(Sending sending) {
    ClassicRequestBuilder builder =
        ClassicRequestBuilder.create(sending.method())
            .setUri(sending.address())
            .addHeader("Accept", sending.text() ? "*/*" : "application/json");
    signInHeader.ifPresent(
        header -> signIn.get().ifPresent(value -> builder.addHeader(header, value)));
    sending.headers().forEach(builder::addHeader);
    if (!sending.body().isEmpty()) {
      builder.setEntity(
          new StringEntity(
              sending.body(), ContentType.create(sending.type(), StandardCharsets.UTF_8)));
    }
    HttpUriRequestBase request = new HttpUriRequestBase(sending.method(), sending.address());
    ClassicHttpRequest built = builder.build();
    request.setHeaders(built.getHeaders());
    request.setEntity(built.getEntity());
    return request;
  }

  /** Lets a body be read as it comes; gives its beginning, which is kept with the call. */
  private static byte[] streamed(HttpEntity entity, BodyReader reader) throws IOException {
    if (entity == null) {
      reader.read(InputStream.nullInputStream());
      return new byte[0];
    }
    try (Beginning in = new Beginning(entity.getContent(), LARGEST_STREAM)) {
      reader.read(in);
      return in.kept();
    }
  }

  private static Trouble trouble(IOException e) {
    String said = String.valueOf(e.getMessage());
    if (e instanceof SSLException && said.contains("Unsupported or unrecognized SSL message")) {
      return Trouble.NO_TLS;
    }
    return isCertificate(e) ? Trouble.CERTIFICATE : Trouble.CONNECTION;
  }

  /** Whether the other side could not show that it is who it should be; nothing was sent then. */
  private static boolean isCertificate(IOException e) {
    return e instanceof SSLHandshakeException || e instanceof SSLPeerUnverifiedException;
  }

  private static boolean wasNotSent(IOException e) {
    return trouble(e) != Trouble.CONNECTION
        || e instanceof ConnectException
        || e instanceof ConnectTimeoutException
        || e instanceof UnknownHostException;
  }

  private Answered answered(ClassicHttpResponse response, byte[] bytes, boolean text)
      throws IOException {
    JsonNode body;
    try {
      body = text ? text(bytes) : json(bytes);
    } catch (com.fasterxml.jackson.core.JsonProcessingException notJson) {
      if (response.getCode() / 100 == 2) {
        throw new IOException("the answer is no whole JSON: " + notJson.getOriginalMessage());
      }
      body = MissingNode.getInstance();
    }
    Instant now = clock.instant();
    Optional<Duration> retryAfter =
        Optional.ofNullable(response.getFirstHeader("Retry-After"))
            .flatMap(header -> RetryAfter.read(header.getValue(), now));
    room.note(response, retryAfter, now);
    return new Answered(
        response.getCode(),
        body,
        retryAfter,
        values(response, "Link"),
        Optional.ofNullable(response.getFirstHeader("ETag")).map(Header::getValue),
        values(response, "WWW-Authenticate"),
        ahead(response, now));
  }

  /**
   * By how much the clock of the system is ahead, by the time at which it says that it answered
   * (RFC 9110, 6.6.1). That is told in whole seconds, so that a little says nothing.
   */
  private static Duration ahead(ClassicHttpResponse response, Instant now) {
    return Optional.ofNullable(response.getFirstHeader("Date"))
        .map(Header::getValue)
        .flatMap(HttpDate::read)
        .map(date -> Duration.between(now, date))
        .filter(ahead -> ahead.abs().compareTo(LEAST_AHEAD) >= 0)
        .orElse(Duration.ZERO);
  }

  private static List<String> values(ClassicHttpResponse response, String header) {
    return Stream.of(response.getHeaders(header)).map(Header::getValue).toList();
  }

  private static JsonNode text(byte[] bytes) {
    return TextNode.valueOf(new String(bytes, StandardCharsets.UTF_8));
  }

  private static JsonNode json(byte[] bytes) throws IOException {
    return bytes.length == 0 ? MissingNode.getInstance() : JSON.readTree(bytes);
  }

  private static byte[] read(HttpEntity entity, int largest) throws IOException {
    if (entity == null) {
      return new byte[0];
    }
    try (InputStream in = entity.getContent()) {
      byte[] bytes = in.readNBytes(largest + 1);
      if (bytes.length > largest) {
        throw new IOException("the answer is larger than " + largest + " bytes");
      }
      return bytes;
    }
  }

  @Override
  public void close() {
    client.close(org.apache.hc.core5.io.CloseMode.GRACEFUL);
  }
}
