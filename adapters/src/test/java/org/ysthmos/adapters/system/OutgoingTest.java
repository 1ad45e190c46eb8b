package org.ysthmos.adapters.system;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class OutgoingTest {

  /** Link-local: RFC 3927, RFC 4291 section 2.5.6; multicast: RFC 5771; unspecified: RFC 1122. */
  @ParameterizedTest
  @ValueSource(strings = {"169.254.169.254", "fe80::1", "224.0.0.1", "0.0.0.0", "::"})
  void addressesThatNoSystemHasAreNeverCalled(String host) {
    assertThatThrownBy(() -> Outgoing.ANYWHERE.resolve(host))
        .isInstanceOf(Outgoing.Refused.class)
        .hasMessageContaining("none of a system");
  }

  /** Private networks: RFC 1918 and RFC 4193; this machine: RFC 1122 section 3.2.1.3. */
  @ParameterizedTest
  @ValueSource(strings = {"127.0.0.1", "10.1.2.3", "172.16.0.1", "192.168.0.9", "::1", "fd00::1"})
  void privateAddressesAreCalledOnlyWhereThatIsAllowed(String host) throws Exception {
    assertThat(Outgoing.ANYWHERE.resolve(host)).isNotEmpty();
    Outgoing outside = new Outgoing(List.of(), false);
    assertThatThrownBy(() -> outside.resolve(host)).hasMessageContaining("private address");
  }

  @Test
  void onlyTheNamedHostsAreCalledWhereSomeAreNamed() throws Exception {
    Outgoing few = new Outgoing(List.of("LocalHost", "*.garden.example"), true);
    assertThat(few.resolve("localhost")).isNotEmpty();
    assertThatThrownBy(() -> few.resolve("elsewhere.example"))
        .hasMessageContaining("elsewhere.example is not among the hosts");
    assertThatThrownBy(() -> few.resolve("garden.example")).isInstanceOf(Outgoing.Refused.class);
    // Below the allowed name it is asked for and simply not known here.
    assertThatThrownBy(() -> few.resolve("ledger.garden.example"))
        .isNotInstanceOf(Outgoing.Refused.class);
  }
}
