-- A mailbox's mark says of each folder how far it was read and which mails are flagged.
ALTER TABLE poll ALTER COLUMN since SET DATA TYPE VARCHAR(60000);
ALTER TABLE poll ALTER COLUMN page SET DATA TYPE VARCHAR(60000);
ALTER TABLE poll ALTER COLUMN mark SET DATA TYPE VARCHAR(60000);

-- A system may have several addresses: a mail account reads at one and sends at another.
CREATE TABLE system_address (
  system_id VARCHAR(64) NOT NULL,
  which VARCHAR(64) NOT NULL,
  address VARCHAR(2000) NOT NULL,
  PRIMARY KEY (system_id, which)
);
INSERT INTO system_address (system_id, which, address)
  SELECT id, 'address', address FROM outside_system WHERE address IS NOT NULL;
ALTER TABLE outside_system DROP COLUMN address;
