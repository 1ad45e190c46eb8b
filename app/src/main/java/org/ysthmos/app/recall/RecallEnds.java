package org.ysthmos.app.recall;

import org.springframework.stereotype.Component;
import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;
import org.ysthmos.app.courier.Recalling;
import org.ysthmos.app.pair.Pairs;
import org.ysthmos.app.recall.RecallMapper.ItemRow;
import org.ysthmos.app.time.AppClock;
import org.ysthmos.app.trace.TraceMapper;
import org.ysthmos.app.trace.Words;
import org.ysthmos.core.recall.RecallOrder.Stand;
import org.ysthmos.core.recall.RecallWay;

/** Notes what became of each record that is taken back, in the change that writes it down. */
@Component
class RecallEnds implements Recalling {

  private final RecallMapper mapper;
  private final Pairs pairs;
  private final TraceMapper traces;
  private final AppClock clock;

  RecallEnds(RecallMapper mapper, Pairs pairs, TraceMapper traces, AppClock clock) {
    this.mapper = mapper;
    this.pairs = pairs;
    this.traces = traces;
    this.clock = clock;
  }

  @Override
  public boolean evenIfChanged(long delivery) {
    return of(delivery).evenIfChanged();
  }

  @Override
  public void went(DeliveryRow delivery, boolean wasThere) {
    ItemRow item = of(delivery.seq());
    ItemState state = wasThere ? ItemState.TAKEN_BACK : ItemState.GONE_BEFORE;
    put(item, state, wasThere ? "" : "Others removed it before");
    if (item.way() == RecallWay.PUT_BACK) {
      // The task stays, and so does its pair.
      return;
    }
    String joins = item.joins();
    boolean unused =
        joins == null
            ? pairs.takenBack(item.bridgeId(), item.matchHash(), item.recordId())
            : pairs.join(item.bridgeId(), item.matchHash(), item.recordId(), joins);
    boolean all =
        mapper.ofTrace(item.recallId(), item.traceSeq()).stream()
            .allMatch(one -> one.state().stand(one.chosen()) == Stand.WENT);
    if (all) {
      traces.takenBack(item.traceSeq(), clock.instant());
    }
  }

  @Override
  public void stays(DeliveryRow delivery, String words) {
    put(of(delivery.seq()), ItemState.STAYS, words);
  }

  @Override
  public void failed(DeliveryRow delivery, String words) {
    put(of(delivery.seq()), ItemState.FAILED, Words.limited(words, 1000));
  }

  private void put(ItemRow item, ItemState state, String words) {
    mapper.put(item.recallId(), item.deliverySeq(), state, item.removal(), words);
  }

  private ItemRow of(long delivery) {
    ItemRow item = mapper.ofRemoval(delivery);
    if (item == null) {
      throw new IllegalStateException("a delivery takes back what no recall knows: " + delivery);
    }
    return item;
  }
}
