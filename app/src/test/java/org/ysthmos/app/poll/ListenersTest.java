package org.ysthmos.app.poll;

import static org.assertj.core.api.Assertions.assertThat;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.times;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.mockito.ArgumentCaptor;
import org.ysthmos.app.system.Systems;
import org.ysthmos.core.gateway.ChangeGateway.Listening;
import org.ysthmos.core.gateway.CollectionRef;
import org.ysthmos.core.gateway.SystemGateway;

class ListenersTest {

  private static final CollectionRef MAILS = new CollectionRef("post", "mails");
  private static final CollectionRef JOBS = new CollectionRef("ledger", "jobs");

  private final Systems systems = mock(Systems.class);
  private final SystemGateway post = mock(SystemGateway.class);
  private final SystemGateway ledger = mock(SystemGateway.class);
  private final Listening listening = mock(Listening.class);
  private final List<CollectionRef> told = new ArrayList<>();
  private final Listeners listeners = new Listeners(systems, told::add);

  @BeforeEach
  void connected() {
    reachedThrough("post", post);
    reachedThrough("ledger", ledger);
    when(post.listen(eq("mails"), any())).thenReturn(Optional.of(listening));
    when(ledger.listen(any(), any())).thenReturn(Optional.empty());
  }

  private void reachedThrough(String system, SystemGateway gateway) {
    Systems.Connected there = mock(Systems.Connected.class);
    when(there.gateway()).thenReturn(gateway);
    when(systems.find(system)).thenReturn(Optional.of(there));
  }

  @Test
  void wordOfAChangeTellsItsPlaceAndListeningBeginsOnce() {
    listeners.listenTo(Set.of(MAILS, JOBS));
    listeners.listenTo(Set.of(MAILS, JOBS));
    ArgumentCaptor<Runnable> word = ArgumentCaptor.forClass(Runnable.class);
    verify(post, times(1)).listen(eq("mails"), word.capture());
    verify(ledger, times(1)).listen(eq("jobs"), any());
    word.getValue().run();
    assertThat(told).containsExactly(MAILS);
  }

  @Test
  void placeThatIsNotAskedAnyMoreIsNotListenedTo() {
    listeners.listenTo(Set.of(MAILS));
    verify(listening, never()).close();
    listeners.listenTo(Set.of());
    verify(listening).close();
  }

  @Test
  void systemThatIsReachedAnewIsListenedToAnew() {
    listeners.listenTo(Set.of(MAILS));
    SystemGateway anew = mock(SystemGateway.class);
    when(anew.listen(any(), any())).thenReturn(Optional.empty());
    reachedThrough("post", anew);
    listeners.listenTo(Set.of(MAILS));
    verify(listening).close();
    verify(anew).listen(eq("mails"), any());
  }

  @Test
  void systemThatIsNotThereIsPassedOver() {
    when(systems.find("post")).thenReturn(Optional.empty());
    listeners.listenTo(Set.of(MAILS));
    verify(post, never()).listen(any(), any());
  }

  @Test
  void allListeningEndsWithTheApplication() {
    listeners.listenTo(Set.of(MAILS));
    listeners.close();
    verify(listening).close();
  }
}
