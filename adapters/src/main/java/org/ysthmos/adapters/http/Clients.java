package org.ysthmos.adapters.http;

import java.net.InetAddress;
import java.net.UnknownHostException;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.SystemDefaultDnsResolver;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.client5.http.ssl.DefaultClientTlsStrategy;
import org.apache.hc.client5.http.ssl.HttpsSupport;
import org.apache.hc.client5.http.ssl.NoopHostnameVerifier;
import org.apache.hc.core5.util.Timeout;
import org.ysthmos.adapters.system.Outgoing;
import org.ysthmos.adapters.system.Surroundings;
import org.ysthmos.adapters.system.SystemDescription;
import org.ysthmos.adapters.system.Trust;

/** Opens the client that speaks with one system. */
final class Clients {

  private Clients() {}

  static CloseableHttpClient open(SystemDescription system, Surroundings surroundings) {
    Timeout limit = Timeout.of(system.timeout());
    Trust trust = system.trust();
    // The client itself may have no say in the name of a host: a certificate that is known by its
    // digest is the right one whatever name it has.
    DefaultClientTlsStrategy tls =
        new DefaultClientTlsStrategy(
            trust.context(),
            trust.asksForTheName()
                ? HttpsSupport.getDefaultHostnameVerifier()
                : NoopHostnameVerifier.INSTANCE);
    return HttpClients.custom()
        .setConnectionManager(
            PoolingHttpClientConnectionManagerBuilder.create()
                .setMaxConnPerRoute(16)
                .setMaxConnTotal(32)
                .setTlsSocketStrategy(tls)
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
}
