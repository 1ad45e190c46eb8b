package org.ysthmos.core.load;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class LoadForecastTest {

  private static final Instant START = Instant.parse("2026-11-23T09:00:00Z");
  private static final RateLimit TWO_A_MINUTE = new RateLimit(2, Duration.ofMinutes(1));

  private static Arrival at(int second, int calls) {
    return new Arrival(START.plusSeconds(second), calls);
  }

  private static LoadForecast of(RateLimit limit, Arrival... arrivals) {
    return LoadForecast.of(List.of(arrivals), Optional.of(limit), ZoneOffset.UTC);
  }

  @Test
  void whatStaysUnderTheLimitDoesNotWait() {
    LoadForecast forecast = of(TWO_A_MINUTE, at(0, 1), at(1, 1), at(60, 1), at(61, 1));
    assertThat(forecast.longestWait()).isZero();
    assertThat(forecast.longestWaitOf()).isEmpty();
    assertThat(forecast.calls()).isEqualTo(4);
  }

  @Test
  void aThirdCallWaitsUntilTheFirstLeftTheSpan() {
    LoadForecast forecast = of(TWO_A_MINUTE, at(0, 1), at(10, 1), at(20, 1));
    assertThat(forecast.longestWait()).isEqualTo(Duration.ofSeconds(40));
    assertThat(forecast.longestWaitOf()).contains(START.plusSeconds(20));
  }

  @Test
  void anEventOfManyCallsHoldsUpItself() {
    assertThat(of(TWO_A_MINUTE, at(0, 5)).longestWait()).isEqualTo(Duration.ofMinutes(2));
  }

  @Test
  void daysAreThoseOfTheZone() {
    List<Arrival> arrivals =
        List.of(
            new Arrival(Instant.parse("2026-11-23T11:30:00Z"), 3),
            new Arrival(Instant.parse("2026-11-23T10:30:00Z"), 1));
    LoadForecast there = LoadForecast.of(arrivals, Optional.empty(), ZoneId.of("Pacific/Auckland"));
    // 11:30 in UTC is half past midnight of the next day in Auckland.
    assertThat(there.days()).isEqualTo(2);
    assertThat(there.busiestDay()).contains(LocalDate.of(2026, 11, 24));
    assertThat(there.callsOnBusiestDay()).isEqualTo(3);
    assertThat(there.callsPerDay()).isEqualTo(2);
  }

  @Test
  void nothingThatCameAsksNothing() {
    LoadForecast none = LoadForecast.of(List.of(), Optional.of(TWO_A_MINUTE), ZoneOffset.UTC);
    assertThat(none)
        .isEqualTo(new LoadForecast(0, 0, Optional.empty(), 0, Duration.ZERO, Optional.empty()));
    assertThat(none.callsPerDay()).isZero();
  }

  /** Played minute by minute, by hand as it were: the limit is never broken, nobody overtakes. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void agreesWithASlowPlaythrough(long seed) {
    Random random = new Random(seed);
    RateLimit limit =
        new RateLimit(1 + random.nextInt(4), Duration.ofSeconds(10 + random.nextInt(50)));
    List<Arrival> arrivals = new ArrayList<>();
    for (int i = 0; i < 60; i++) {
      arrivals.add(at(random.nextInt(600), random.nextInt(4)));
    }
    Collections.shuffle(arrivals, random);
    LoadForecast forecast = LoadForecast.of(arrivals, Optional.of(limit), ZoneOffset.UTC);
    assertThat(forecast.longestWait().toSeconds())
        .as("seed %d", seed)
        .isEqualTo(slowly(arrivals, limit));
  }

  private static long slowly(List<Arrival> arrivals, RateLimit limit) {
    List<Arrival> ordered = new ArrayList<>(arrivals);
    ordered.sort(java.util.Comparator.comparing(Arrival::at));
    List<Long> made = new ArrayList<>();
    long longest = 0;
    long now = 0;
    for (Arrival arrival : ordered) {
      long came = Duration.between(START, arrival.at()).toSeconds();
      now = Math.max(now, came);
      for (int call = 0; call < arrival.calls(); call++) {
        while (recent(made, now, limit) >= limit.calls()) {
          now++;
        }
        made.add(now);
      }
      longest = arrival.calls() == 0 ? longest : Math.max(longest, now - came);
    }
    return longest;
  }

  private static long recent(List<Long> made, long now, RateLimit limit) {
    return made.stream().filter(at -> at > now - limit.per().toSeconds()).count();
  }

  @Test
  void aLimitAllowsSomething() {
    assertThatIllegalArgumentException().isThrownBy(() -> new RateLimit(0, Duration.ofSeconds(1)));
    assertThatIllegalArgumentException().isThrownBy(() -> new RateLimit(1, Duration.ZERO));
    assertThat(new RateLimit(90, Duration.ofMinutes(1)).callsPerDay()).isEqualTo(129_600);
  }

  @Test
  void theBusiestSpanHoldsItsStartAndNotItsEnd() {
    List<Instant> at =
        List.of(START.plusSeconds(3600), START, START.plusSeconds(1800), START.plusSeconds(3599));
    assertThat(BusiestSpan.of(at, Duration.ofHours(1))).isEqualTo(new BusiestSpan(3, START));
    assertThat(BusiestSpan.of(List.of(), Duration.ofHours(1)).times()).isZero();
  }
}
