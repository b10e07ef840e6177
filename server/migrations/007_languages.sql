-- What was translated once, between two languages; private to its owner. `key`: the source without what its codes are numbered.
CREATE TABLE memory_units (
  owner text NOT NULL REFERENCES owners (id),
  source text NOT NULL,
  target text NOT NULL,
  key text NOT NULL,
  said text NOT NULL,
  unit jsonb NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (owner, source, target, key, said)
);
CREATE INDEX memory_units_by_pair ON memory_units (owner, source, target, at);
