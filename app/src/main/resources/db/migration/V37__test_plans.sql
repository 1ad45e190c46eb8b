-- What is tested of a bridge again and again, and when next.
CREATE TABLE test_plan (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  bridge_id VARCHAR(64) NOT NULL REFERENCES bridge (id),
  what VARCHAR(400) NOT NULL,
  how VARCHAR(8) NOT NULL,
  -- Empty where whoever owns the bridge tests it.
  owner VARCHAR(200) NOT NULL,
  -- One of both says how often.
  every_days INT,
  rule VARCHAR(400),
  first_on DATE NOT NULL,
  -- Null where its rule has ended, or somebody ended it.
  due_on DATE,
  ended_at TIMESTAMP(9) WITH TIME ZONE,
  revision INT NOT NULL,
  changed_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  changed_by VARCHAR(128) NOT NULL
);
CREATE INDEX test_plan_of ON test_plan (bridge_id, id);

-- What was tested, and how it went; never changed, never removed.
CREATE TABLE test_result (
  id BIGINT GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
  plan_id BIGINT NOT NULL REFERENCES test_plan (id),
  passed BOOLEAN NOT NULL,
  words VARCHAR(4000) NOT NULL,
  -- The version of the bridge that was tested.
  version INT NOT NULL,
  -- When it had been due; null where it was tested without being due.
  due_on DATE,
  tested_on DATE NOT NULL,
  tested_at TIMESTAMP(9) WITH TIME ZONE NOT NULL,
  tested_by VARCHAR(128) NOT NULL
);
CREATE INDEX test_result_of ON test_result (plan_id, id);
