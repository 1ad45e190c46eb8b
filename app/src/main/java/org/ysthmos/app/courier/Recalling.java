package org.ysthmos.app.courier;

import org.ysthmos.app.courier.DeliveryMapper.DeliveryRow;

/** Told of what becomes of deliveries that take back what was made. */
public interface Recalling {

  /** Whether a record goes even if somebody changed it since it was written. */
  boolean evenIfChanged(long delivery);

  /**
   * It is taken back; inside the change that writes it down.
   *
   * @param wasThere false if others removed it before
   */
  void went(DeliveryRow delivery, boolean wasThere);

  /**
   * It stays as somebody changed it since; inside the change that writes it down.
   *
   * @param words why it stays, as a sentence without a full stop
   */
  void stays(DeliveryRow delivery, String words);

  /** It could not be taken back; inside the change that writes it down. */
  void failed(DeliveryRow delivery, String words);
}
