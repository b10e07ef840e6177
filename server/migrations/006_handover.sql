-- What web editions that were tried here have sent of their readers.
CREATE TABLE collected (
  sent_as text NOT NULL,
  visit text NOT NULL,
  kind text NOT NULL,
  page integer NOT NULL,
  what text,
  at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX collected_sent_as ON collected (sent_as, at);

-- Results on the simulated web host: a site has versions, of which one is shown, or none.
CREATE TABLE published_sites (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  folio text NOT NULL REFERENCES folios (id) ON DELETE CASCADE,
  recipe text NOT NULL,
  name text NOT NULL UNIQUE,
  shown integer,
  created_at timestamptz NOT NULL DEFAULT now(),
  UNIQUE (folio, recipe)
);
CREATE TABLE published_versions (
  site text NOT NULL REFERENCES published_sites (id) ON DELETE CASCADE,
  number integer NOT NULL,
  run text NOT NULL,
  bytes bigint NOT NULL,
  files integer NOT NULL,
  secure jsonb NOT NULL DEFAULT '[]',
  at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (site, number)
);
