-- Work asked of translators, as one document each, `link` names the newest mail: links of older ones open nothing.
CREATE TABLE translation_jobs (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  folio text NOT NULL REFERENCES folios (id) ON DELETE CASCADE,
  state text NOT NULL,
  link text NOT NULL,
  job jsonb NOT NULL,
  -- What the simulated service sends, and when, a file that was delivered.
  deliver_at timestamptz,
  delivery text,
  asked_at timestamptz NOT NULL DEFAULT now()
);
CREATE INDEX translation_jobs_by_folio ON translation_jobs (owner, folio, asked_at);

-- The simulated outbox: mails as they would leave, and what the application shows of them.
CREATE TABLE outbox (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  job text NOT NULL REFERENCES translation_jobs (id) ON DELETE CASCADE,
  letter jsonb NOT NULL,
  raw text NOT NULL,
  at timestamptz NOT NULL DEFAULT now()
);

CREATE TABLE notices (
  id text PRIMARY KEY,
  owner text NOT NULL REFERENCES owners (id),
  folio text NOT NULL REFERENCES folios (id) ON DELETE CASCADE,
  job text NOT NULL REFERENCES translation_jobs (id) ON DELETE CASCADE,
  kind text NOT NULL,
  says text NOT NULL,
  unit text,
  seen boolean NOT NULL DEFAULT false,
  at timestamptz NOT NULL DEFAULT now()
);

-- Keys that this installation signs with, made once.
CREATE TABLE signing_keys (
  name text PRIMARY KEY,
  secret text NOT NULL
);

-- Terms in two languages, private to their owner.
CREATE TABLE terms (
  owner text NOT NULL REFERENCES owners (id),
  source text NOT NULL,
  target text NOT NULL,
  id text NOT NULL,
  term jsonb NOT NULL,
  at timestamptz NOT NULL DEFAULT now(),
  PRIMARY KEY (owner, source, target, id)
);
