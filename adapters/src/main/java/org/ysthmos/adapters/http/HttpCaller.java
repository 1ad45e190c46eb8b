package org.ysthmos.adapters.http;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.json.JsonMapper;
import com.fasterxml.jackson.databind.node.MissingNode;
import java.io.IOException;
import java.io.InputStream;
import java.net.ConnectException;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.time.InstantSource;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.Supplier;
import java.util.stream.Stream;
import org.apache.hc.client5.http.ConnectTimeoutException;
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
import org.ysthmos.core.gateway.CallLog;
import org.ysthmos.core.gateway.RemoteCall;

/**
 * Makes calls to one system and takes each down with its secrets masked. Follows no redirects and
 * never tries again by itself: what to do about a failure is decided elsewhere.
 */
final class HttpCaller implements AutoCloseable {

  /** The most that is read of an answer, in bytes. */
  static final int LARGEST_ANSWER = 1 << 20;

  private static final int LONGEST_KEPT_BODY = 16_000;
  private static final JsonMapper JSON = JsonMapper.builder().build();
  private static final List<String> SECRET_HEADERS = List.of("authorization", "cookie");

  /** What a call came to. */
  sealed interface Answer {}

  /**
   * The system answered.
   *
   * @param retryAfter the value of the header of that name
   * @param links the values of the Link headers
   */
  record Answered(int status, JsonNode body, Optional<String> retryAfter, List<String> links)
      implements Answer {}

  /** The connection could not be made, so nothing was sent. */
  record NotSent(String why) implements Answer {}

  /** The request may have been sent; no whole answer came. */
  record NoAnswer(String why) implements Answer {}

  private final String system;
  private final InstantSource clock;
  private final Optional<String> signInHeader;
  private final Supplier<Optional<String>> signIn;
  private final CloseableHttpClient client;

  /**
   * @param signInHeader the header that says who calls; its value is a secret
   * @param signIn gives its value, asked at each call
   */
  HttpCaller(
      String system,
      Duration timeout,
      Optional<String> signInHeader,
      Supplier<Optional<String>> signIn,
      InstantSource clock) {
    this.system = system;
    this.clock = clock;
    this.signInHeader = signInHeader;
    this.signIn = signIn;
    Timeout limit = Timeout.of(timeout);
    this.client =
        HttpClients.custom()
            .setConnectionManager(
                PoolingHttpClientConnectionManagerBuilder.create()
                    .setMaxConnPerRoute(16)
                    .setMaxConnTotal(32)
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

  /**
   * @param body the JSON to send; a missing node for none
   */
  Answer call(String method, URI address, JsonNode body, CallLog log) {
    ClassicRequestBuilder builder =
        ClassicRequestBuilder.create(method)
            .setUri(address)
            .addHeader("Accept", "application/json");
    signInHeader.ifPresent(
        header -> signIn.get().ifPresent(value -> builder.addHeader(header, value)));
    String sent = body.isMissingNode() ? "" : body.toString();
    if (!sent.isEmpty()) {
      builder.setEntity(new StringEntity(sent, ContentType.APPLICATION_JSON));
    }
    ClassicHttpRequest request = builder.build();
    Instant start = clock.instant();
    long began = System.nanoTime();
    try {
      return client.execute(
          request,
          response -> {
            byte[] bytes = read(response.getEntity());
            log.called(record(request, address, sent, start, began, response, bytes));
            return answered(response, bytes);
          });
    } catch (IOException e) {
      String why = e.getClass().getSimpleName() + ": " + e.getMessage();
      log.called(
          new RemoteCall(
              system,
              start,
              Duration.ofNanos(System.nanoTime() - began),
              lines(request, address),
              sent,
              0,
              List.of(),
              "",
              why));
      return wasNotSent(e) ? new NotSent(why) : new NoAnswer(why);
    }
  }

  private static boolean wasNotSent(IOException e) {
    return e instanceof ConnectException
        || e instanceof ConnectTimeoutException
        || e instanceof UnknownHostException;
  }

  private static Answered answered(ClassicHttpResponse response, byte[] bytes) throws IOException {
    JsonNode body;
    try {
      body = bytes.length == 0 ? MissingNode.getInstance() : JSON.readTree(bytes);
    } catch (com.fasterxml.jackson.core.JsonProcessingException notJson) {
      if (response.getCode() / 100 == 2) {
        throw new IOException("the answer is no whole JSON: " + notJson.getOriginalMessage());
      }
      body = MissingNode.getInstance();
    }
    Header retryAfter = response.getFirstHeader("Retry-After");
    return new Answered(
        response.getCode(),
        body,
        Optional.ofNullable(retryAfter).map(Header::getValue),
        Stream.of(response.getHeaders("Link")).map(Header::getValue).toList());
  }

  private static byte[] read(HttpEntity entity) throws IOException {
    if (entity == null) {
      return new byte[0];
    }
    try (InputStream in = entity.getContent()) {
      byte[] bytes = in.readNBytes(LARGEST_ANSWER + 1);
      if (bytes.length > LARGEST_ANSWER) {
        throw new IOException("the answer is larger than " + LARGEST_ANSWER + " bytes");
      }
      return bytes;
    }
  }

  private RemoteCall record(
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
