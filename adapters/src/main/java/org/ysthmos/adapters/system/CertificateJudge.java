package org.ysthmos.adapters.system;

import java.net.Socket;
import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.X509ExtendedTrustManager;
import org.jspecify.annotations.Nullable;

/** Asks an opinion of servers; there are no clients to be judged. */
final class CertificateJudge extends X509ExtendedTrustManager {
  /** Says what it thinks of a chain, the system's own certificate first. */
  @FunctionalInterface
  interface Opinion {
    void check(X509Certificate[] chain) throws CertificateException;
  }

  private final Opinion opinion;

  CertificateJudge(Opinion opinion) {
    this.opinion = opinion;
  }

  @Override
  public void checkServerTrusted(X509Certificate[] chain, String type) throws CertificateException {
    opinion.check(chain);
  }

  @Override
  public void checkServerTrusted(X509Certificate[] chain, String type, @Nullable Socket socket)
      throws CertificateException {
    opinion.check(chain);
  }

  @Override
  public void checkServerTrusted(X509Certificate[] chain, String type, @Nullable SSLEngine engine)
      throws CertificateException {
    opinion.check(chain);
  }

  @Override
  public void checkClientTrusted(X509Certificate[] chain, String type) throws CertificateException {
    throw new CertificateException("nobody calls here");
  }

  @Override
  public void checkClientTrusted(X509Certificate[] chain, String type, @Nullable Socket socket)
      throws CertificateException {
    throw new CertificateException("nobody calls here");
  }

  @Override
  public void checkClientTrusted(X509Certificate[] chain, String type, @Nullable SSLEngine engine)
      throws CertificateException {
    throw new CertificateException("nobody calls here");
  }

  @Override
  public X509Certificate[] getAcceptedIssuers() {
    return new X509Certificate[0];
  }
}
