package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import com.fasterxml.jackson.databind.node.TextNode;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.InetAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import java.util.stream.Stream;
import javax.net.ssl.SSLHandshakeException;
import javax.net.ssl.SSLPeerUnverifiedException;
import org.apache.hc.client5.http.ConnectTimeoutException;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.SystemDefaultDnsResolver;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ClassicHttpRequest;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.apache.hc.core5.http.io.support.ClassicRequestBuilder;
import org.apache.hc.core5.util.Timeout;
import org.ysthmos.adapters.system.Outgoing;
import org.ysthmos.adapters.system.SignIn;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall;
import org.ysthmos.core.gateway.RemoteCall.Purpose;
import org.ysthmos.core.load.RateLimiter;

/**
 * Makes calls to one system and takes each down with its secrets masked. Follows no redirects and
 * never tries again by itself: what to do about a failure is decided elsewhere.
 */
public final class HttpCaller implements AutoCloseable {

  /** The most that is read of an answer, in bytes. */
  static final int LARGEST_ANSWER = 1 << 20;

  /** A listing of many documents in one answer may be larger. */
  static final int LARGEST_LISTING = 16 << 20;

  private static final int LONGEST_KEPT_BODY = 16_000;
  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final List<String> SECRET_HEADERS = List.of("authorization", "cookie");

  /** What a call came to. */
  public sealed interface Answer {}

  /**
   * The system answered.
   *
   * @param retryAfter how long the system asks us to wait
   * @param links the values of the Link headers
   * @param tag the entity tag of what was answered
   */
  public record Answered(
      int status,
      JsonNode body,
      Optional<Duration> retryAfter,
      List<String> links,
      Optional<String> tag)
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
   * @param certificate whether its certificate is why
   */
  public record NotSent(String why, boolean certificate) implements Answer {}

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

  private static final ScheduledExecutorService DEADLINES =
      Executors.newSingleThreadScheduledExecutor(
          Thread.ofPlatform().name("call-deadlines").daemon().factory());

  private final Duration whole;
  private final String system;
  private final InstantSource clock;
  private final HttpLimiter room;
  private final Optional<String> signInHeader;
  private final Supplier<Optional<String>> signIn;
  private final CloseableHttpClient client;

  public HttpCaller(SystemDescription system, HttpLimiter room, Surroundings surroundings) {
    this.system = system.name();
    this.room = room;
    this.clock = surroundings.clock();
    this.signInHeader = system.signIn().map(SignIn::header);
    this.signIn =
        () ->
            system
                .signIn()
                .flatMap(how -> surroundings.secrets().apply(how.secret()).map(how::value));
    this.whole = system.timeout().multipliedBy(READS_IN_A_CALL);
    Timeout limit = Timeout.of(system.timeout());
    this.client =
        HttpClients.custom()
            .setConnectionManager(
                PoolingHttpClientConnectionManagerBuilder.create()
                    .setMaxConnPerRoute(16)
                    .setMaxConnTotal(32)
                    .setDnsResolver(resolver(surroundings.outgoing()))
                    .setDefaultConnectionConfig(
                        ConnectionConfig.custom()
                            .setConnectTimeout(limit)
                            .setSocketTimeout(limit)
                            .build())
                    .build())
            .setDefaultRequestConfig(RequestConfig.custom().setResponseTimeout(limit).build())
            .disableRedirectHandling()
            .disableAutomaticRetries()
            .disableCookieManagement()
            .setUserAgent("Ysthmos")
            .build();
  }

  /** For calls that are no calls to a connected system: not signed in, and without a limit. */
  public static HttpCaller plain(URI address, Surroundings surroundings) {
    return new HttpCaller(
        plainly(address),
        new HttpLimiter(new RateLimiter(Optional.empty()), Optional.empty()),
        surroundings);
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
        (system, around) -> {
          throw new IllegalStateException("an address alone has no gateway");
        },
        Map.of(),
        Optional.empty());
  }

  private static DnsResolver resolver(Outgoing outgoing) {
    return new DnsResolver() {
      @Override
      public InetAddress[] resolve(String host) throws UnknownHostException {
        return outgoing.resolve(host);
      }

      @Override
      public String resolveCanonicalHostname(String host) throws UnknownHostException {
        return SystemDefaultDnsResolver.INSTANCE.resolveCanonicalHostname(host);
      }
    };
  }

  /** Makes a call and waits for its answer. */
  public Answer call(Sending sending, CallLog log) {
    URI address = sending.address();
    String sent = sending.body();
    Duration wait = room.take(clock.instant());
    if (!wait.isZero()) {
      return new NoRoom(wait);
    }
    ClassicRequestBuilder builder =
        ClassicRequestBuilder.create(sending.method())
            .setUri(address)
            .addHeader("Accept", sending.text() ? "*/*" : "application/json");
    signInHeader.ifPresent(
        header -> signIn.get().ifPresent(value -> builder.addHeader(header, value)));
    sending.headers().forEach(builder::addHeader);
    if (!sent.isEmpty()) {
      builder.setEntity(
          new StringEntity(sent, ContentType.create(sending.type(), StandardCharsets.UTF_8)));
    }
    HttpUriRequestBase request = new HttpUriRequestBase(sending.method(), address);
    ClassicHttpRequest built = builder.build();
    request.setHeaders(built.getHeaders());
    request.setEntity(built.getEntity());
    Instant start = clock.instant();
    long began = System.nanoTime();
    // Each read has its own limit; one that comes in drops would never end without one for all.
    ScheduledFuture<?> deadline =
        DEADLINES.schedule(request::cancel, whole.toMillis(), TimeUnit.MILLISECONDS);
    try {
      return client.execute(
          request,
          response -> {
            byte[] bytes =
                read(response.getEntity(), sending.text() ? LARGEST_LISTING : LARGEST_ANSWER);
            log.called(
                record(sending.purpose(), request, address, sent, start, began, response, bytes));
            return answered(response, bytes, sending.text());
          });
    } catch (IOException e) {
      String why =
          request.isCancelled()
              ? "no whole answer within " + whole.toSeconds() + " s"
              : e.getClass().getSimpleName() + ": " + e.getMessage();
      log.called(
          new RemoteCall(
              system,
              sending.purpose(),
              start,
              Duration.ofNanos(System.nanoTime() - began),
              lines(request, address),
              kept(sent),
              0,
              List.of(),
              "",
              why));
      return wasNotSent(e) ? new NotSent(why, isCertificate(e)) : new NoAnswer(why);
    } finally {
      deadline.cancel(false);
    }
  }

  /** Whether the other side could not show that it is who it should be; nothing was sent then. */
  private static boolean isCertificate(IOException e) {
    return e instanceof SSLHandshakeException || e instanceof SSLPeerUnverifiedException;
  }

  private static boolean wasNotSent(IOException e) {
    return isCertificate(e)
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
        Stream.of(response.getHeaders("Link")).map(Header::getValue).toList(),
        Optional.ofNullable(response.getFirstHeader("ETag")).map(Header::getValue));
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

  private RemoteCall record(
      Purpose purpose,
      ClassicHttpRequest request,
      URI address,
      String sent,
      Instant start,
      long began,
      ClassicHttpResponse response,
      byte[] bytes) {
    List<String> headers = new ArrayList<>();
    for (Header header : response.getHeaders()) {
      headers.add(header.getName() + ": " + header.getValue());
    }
    return new RemoteCall(
        system,
        purpose,
        start,
        Duration.ofNanos(System.nanoTime() - began),
        lines(request, address),
        kept(sent),
        response.getCode(),
        headers,
        kept(new String(bytes, StandardCharsets.UTF_8)),
        "");
  }

  private static String kept(String body) {
    return body.length() <= LONGEST_KEPT_BODY ? body : body.substring(0, LONGEST_KEPT_BODY) + "…";
  }

  private List<String> lines(ClassicHttpRequest request, URI address) {
    List<String> lines = new ArrayList<>();
    lines.add(request.getMethod() + " " + address);
    for (Header header : request.getHeaders()) {
      String name = header.getName();
      boolean secret =
          SECRET_HEADERS.contains(name.toLowerCase(Locale.ROOT))
              || signInHeader.filter(name::equalsIgnoreCase).isPresent();
      lines.add(header.getName() + ": " + (secret ? "••••••••" : header.getValue()));
    }
    return lines;
  }

  @Override
  public void close() {
    client.close(org.apache.hc.core5.io.CloseMode.GRACEFUL);
  }
}
