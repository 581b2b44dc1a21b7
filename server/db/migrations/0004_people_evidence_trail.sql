CREATE TABLE "account" (
	"id" uuid PRIMARY KEY NOT NULL,
	"user_id" uuid NOT NULL,
	"account_id" text NOT NULL,
	"provider_id" text NOT NULL,
	"password" text,
	"access_token" text,
	"refresh_token" text,
	"id_token" text,
	"scope" text,
	"access_token_expires_at" timestamp with time zone,
	"refresh_token_expires_at" timestamp with time zone,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "code_description" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "code_description_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"depot_id" uuid NOT NULL,
	"code" text NOT NULL,
	"text" text NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "evidence" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "evidence_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"takes_back" uuid,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "finding" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "finding_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"supersedes" uuid,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "intake" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "intake_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "job_event" (
	"job_id" uuid NOT NULL,
	"number" integer NOT NULL,
	"kind" text NOT NULL,
	"row_id" uuid NOT NULL,
	"recorded_by" text NOT NULL,
	"at" timestamp with time zone NOT NULL,
	"content" text NOT NULL,
	"previous" text NOT NULL,
	"hash" text NOT NULL,
	CONSTRAINT "job_event_job_id_number_pk" PRIMARY KEY("job_id","number")
);
--> statement-breakpoint
CREATE TABLE "job_head" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"number" integer NOT NULL,
	"hash" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "photo" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "photo_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"sha256" text NOT NULL,
	"size" integer NOT NULL,
	"width" integer NOT NULL,
	"height" integer NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "photo_content" (
	"id" uuid PRIMARY KEY NOT NULL,
	"full_size" "bytea" NOT NULL,
	"small_size" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "plan_change" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "plan_change_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "session" (
	"id" uuid PRIMARY KEY NOT NULL,
	"user_id" uuid NOT NULL,
	"token" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"ip_address" text,
	"user_agent" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "session_token_unique" UNIQUE("token")
);
--> statement-breakpoint
CREATE TABLE "sign_in_attempt" (
	"key" text PRIMARY KEY NOT NULL,
	"points" integer DEFAULT 0 NOT NULL,
	"expire" bigint
);
--> statement-breakpoint
CREATE TABLE "unit_words" (
	"unit_id" uuid PRIMARY KEY NOT NULL,
	"words" text NOT NULL
);
--> statement-breakpoint
CREATE TABLE "verification" (
	"id" uuid PRIMARY KEY NOT NULL,
	"identifier" text NOT NULL,
	"value" text NOT NULL,
	"expires_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"updated_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "depot_id" DROP NOT NULL;--> statement-breakpoint
ALTER TABLE "code_observation" ADD COLUMN "freeze_frame" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "email" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "email_verified" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "image" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "updated_at" timestamp with time zone DEFAULT now() NOT NULL;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "username" text;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "display_username" text;--> statement-breakpoint
ALTER TABLE "account" ADD CONSTRAINT "account_user_id_person_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "code_description" ADD CONSTRAINT "code_description_depot_id_depot_id_fk" FOREIGN KEY ("depot_id") REFERENCES "public"."depot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "evidence" ADD CONSTRAINT "evidence_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "finding" ADD CONSTRAINT "finding_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "intake" ADD CONSTRAINT "intake_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_event" ADD CONSTRAINT "job_event_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job_head" ADD CONSTRAINT "job_head_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "photo_content" ADD CONSTRAINT "photo_content_id_photo_id_fk" FOREIGN KEY ("id") REFERENCES "public"."photo"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "plan_change" ADD CONSTRAINT "plan_change_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "unit_words" ADD CONSTRAINT "unit_words_unit_id_unit_id_fk" FOREIGN KEY ("unit_id") REFERENCES "public"."unit"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "session" ADD CONSTRAINT "session_user_id_person_id_fk" FOREIGN KEY ("user_id") REFERENCES "public"."person"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
CREATE UNIQUE INDEX "account_person" ON "account" USING btree ("user_id","provider_id");--> statement-breakpoint
CREATE INDEX "code_description_code" ON "code_description" USING btree ("depot_id","code","sequence");--> statement-breakpoint
CREATE INDEX "evidence_job" ON "evidence" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE UNIQUE INDEX "evidence_taken_back_once" ON "evidence" USING btree ("takes_back");--> statement-breakpoint
CREATE INDEX "finding_job" ON "finding" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE UNIQUE INDEX "finding_superseded_once" ON "finding" USING btree ("supersedes");--> statement-breakpoint
CREATE INDEX "intake_job" ON "intake" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE INDEX "job_event_row" ON "job_event" USING btree ("row_id");--> statement-breakpoint
CREATE INDEX "photo_job" ON "photo" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE INDEX "plan_change_job" ON "plan_change" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE INDEX "session_person" ON "session" USING btree ("user_id");--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_email_unique" UNIQUE("email");--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_username_unique" UNIQUE("username");--> statement-breakpoint
ALTER TABLE "person" ALTER COLUMN "role" SET DEFAULT 'viewer';
--> statement-breakpoint
-- Who signs in: those who are there already get a name to sign in with; their PIN is set by a lead.
UPDATE "person" SET "username" = lower(regexp_replace(btrim("name"), '\s+', ' ', 'g')), "display_username" = "name", "email" = "id" || '@people.invalid'
  WHERE "id" IN (SELECT DISTINCT ON (lower("name")) "id" FROM "person" ORDER BY lower("name"), "created_at");
--> statement-breakpoint
CREATE TRIGGER intake_append_only BEFORE UPDATE OR DELETE ON "intake" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER evidence_append_only BEFORE UPDATE OR DELETE ON "evidence" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER finding_append_only BEFORE UPDATE OR DELETE ON "finding" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER plan_change_append_only BEFORE UPDATE OR DELETE ON "plan_change" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER photo_append_only BEFORE UPDATE OR DELETE ON "photo" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER photo_content_append_only BEFORE UPDATE OR DELETE ON "photo_content" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER code_description_append_only BEFORE UPDATE OR DELETE ON "code_description" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER job_event_append_only BEFORE UPDATE OR DELETE ON "job_event" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
ALTER TABLE "evidence" ADD CONSTRAINT "evidence_takes_back_fk" FOREIGN KEY ("takes_back") REFERENCES "evidence"("id");
--> statement-breakpoint
ALTER TABLE "finding" ADD CONSTRAINT "finding_supersedes_fk" FOREIGN KEY ("supersedes") REFERENCES "finding"("id");
--> statement-breakpoint
-- A moment as text, the same whatever the session's time zone.
CREATE FUNCTION mudflat_moment(t timestamptz) RETURNS text LANGUAGE sql IMMUTABLE AS $$
  SELECT to_char(t AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"')
$$;
--> statement-breakpoint
-- What of a row belongs to the trail: all but what is derived from other rows, or changes by itself.
CREATE FUNCTION mudflat_content(kind text, row_ jsonb) RETURNS text LANGUAGE sql STABLE SET timezone TO 'UTC' SET extra_float_digits TO '1' AS $$
  SELECT (CASE kind WHEN 'test_run' THEN row_ - 'judgement' - 'specification_id' - 'because' WHEN 'job' THEN row_ - 'closed_at' ELSE row_ END)::text
$$;
--> statement-breakpoint
CREATE FUNCTION mudflat_row(kind text, row_id uuid) RETURNS text LANGUAGE plpgsql STABLE SET timezone TO 'UTC' SET extra_float_digits TO '1' AS $$
DECLARE found jsonb;
BEGIN
  EXECUTE format('SELECT to_jsonb(t) FROM %I t WHERE id = $1', kind) INTO found USING row_id;
  RETURN CASE WHEN found IS NULL THEN NULL ELSE mudflat_content(kind, found) END;
END $$;
--> statement-breakpoint
-- Adds an event at the end of a job's trail. Whoever is second waits for the head's row, so that numbers have no gaps.
CREATE FUNCTION mudflat_append(kind_ text, job uuid, row_ jsonb) RETURNS void LANGUAGE plpgsql SET timezone TO 'UTC' SET extra_float_digits TO '1' AS $$
DECLARE
  head job_head;
  who text := coalesce(row_->>'recorded_by', row_->>'taken_by', row_->>'started_by', row_->>'opened_by', '');
  moment timestamptz := clock_timestamp();
  body text := mudflat_content(kind_, row_);
  made text;
BEGIN
  INSERT INTO job_head (job_id, number, hash) VALUES (job, 0, '') ON CONFLICT DO NOTHING;
  SELECT * INTO head FROM job_head WHERE job_id = job FOR UPDATE;
  made := encode(sha256(convert_to(array_to_string(ARRAY[head.hash, (head.number + 1)::text, kind_, row_->>'id', who, mudflat_moment(moment), body], E'\n'), 'UTF8')), 'hex');
  INSERT INTO job_event (job_id, number, kind, row_id, recorded_by, at, content, previous, hash) VALUES (job, head.number + 1, kind_, (row_->>'id')::uuid, who, moment, body, head.hash, made);
  UPDATE job_head SET number = head.number + 1, hash = made WHERE job_id = job;
  PERFORM pg_notify('mudflat_job', json_build_object('job', job, 'number', head.number + 1, 'kind', kind_, 'row', row_->>'id', 'run', row_->>'run_id', 'by', left(who, 80))::text);
END $$;
--> statement-breakpoint
CREATE FUNCTION mudflat_event() RETURNS trigger LANGUAGE plpgsql SET timezone TO 'UTC' SET extra_float_digits TO '1' AS $$
DECLARE
  row_ jsonb := to_jsonb(NEW);
  job uuid;
BEGIN
  IF TG_TABLE_NAME = 'job' THEN job := NEW.id;
  ELSIF row_ ? 'run_id' THEN SELECT r.job_id INTO job FROM test_run r WHERE r.id = (row_->>'run_id')::uuid;
  ELSE job := (row_->>'job_id')::uuid;
  END IF;
  PERFORM mudflat_append(TG_TABLE_NAME, job, row_);
  RETURN NULL;
END $$;
--> statement-breakpoint
-- Rows of a job that stand in no event.
CREATE FUNCTION mudflat_stray_rows(job_ uuid) RETURNS TABLE (kind text, row_id uuid) LANGUAGE sql STABLE AS $$
  SELECT k, i FROM (
    SELECT 'job' k, id i FROM job WHERE id = job_
    UNION ALL SELECT 'test_run', id FROM test_run WHERE job_id = job_
    UNION ALL SELECT 'circumstance', c.id FROM circumstance c JOIN test_run r ON r.id = c.run_id WHERE r.job_id = job_
    UNION ALL SELECT 'reading', c.id FROM reading c JOIN test_run r ON r.id = c.run_id WHERE r.job_id = job_
    UNION ALL SELECT 'code_observation', id FROM code_observation WHERE job_id = job_
    UNION ALL SELECT 'job_note', id FROM job_note WHERE job_id = job_
    UNION ALL SELECT 'intake', id FROM intake WHERE job_id = job_
    UNION ALL SELECT 'evidence', id FROM evidence WHERE job_id = job_
    UNION ALL SELECT 'finding', id FROM finding WHERE job_id = job_
    UNION ALL SELECT 'plan_change', id FROM plan_change WHERE job_id = job_
    UNION ALL SELECT 'photo', id FROM photo WHERE job_id = job_
  ) rows WHERE NOT EXISTS (SELECT 1 FROM job_event e WHERE e.job_id = job_ AND e.row_id = i AND e.kind = k)
$$;
--> statement-breakpoint
-- What was written before there was a trail enters it in the order in which it was written.
DO $$
DECLARE r record;
BEGIN
  FOR r IN
    SELECT * FROM (
      SELECT 'job' k, id j, to_jsonb(t) b, created_at c, 0 s FROM job t
      UNION ALL SELECT 'test_run', job_id, to_jsonb(t), created_at, 1 FROM test_run t
      UNION ALL SELECT 'circumstance', n.job_id, to_jsonb(t), t.created_at, 2 FROM circumstance t JOIN test_run n ON n.id = t.run_id
      UNION ALL SELECT 'reading', n.job_id, to_jsonb(t), t.created_at, 3 FROM reading t JOIN test_run n ON n.id = t.run_id
      UNION ALL SELECT 'code_observation', job_id, to_jsonb(t), created_at, 4 FROM code_observation t
      UNION ALL SELECT 'job_note', job_id, to_jsonb(t), created_at, 5 FROM job_note t
    ) old ORDER BY j, c, s, (b->>'sequence')::int NULLS FIRST
  LOOP
    PERFORM mudflat_append(r.k, r.j, r.b);
  END LOOP;
END $$;
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER job_event AFTER INSERT ON "job" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER test_run_event AFTER INSERT ON "test_run" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER circumstance_event AFTER INSERT ON "circumstance" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER reading_event AFTER INSERT ON "reading" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER code_observation_event AFTER INSERT ON "code_observation" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER job_note_event AFTER INSERT ON "job_note" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER intake_event AFTER INSERT ON "intake" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER evidence_event AFTER INSERT ON "evidence" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER finding_event AFTER INSERT ON "finding" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER plan_change_event AFTER INSERT ON "plan_change" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER photo_event AFTER INSERT ON "photo" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
-- All words by which a unit is found, in one place: its own fields, and number and complaint of each of its jobs. Held by triggers.
CREATE FUNCTION mudflat_words_of(unit_ uuid) RETURNS text LANGUAGE sql STABLE AS $$
  SELECT lower(concat_ws(' ', u.fleet_number, u.kind, f.code, d.name, (SELECT string_agg(j.number || ' ' || j.complaint, ' ') FROM job j WHERE j.unit_id = u.id)))
    FROM unit u JOIN engine_family f ON f.id = u.engine_family_id JOIN depot d ON d.id = u.depot_id WHERE u.id = unit_
$$;
--> statement-breakpoint
CREATE FUNCTION mudflat_refill_words() RETURNS void LANGUAGE sql AS $$
  INSERT INTO unit_words (unit_id, words) SELECT id, mudflat_words_of(id) FROM unit ON CONFLICT (unit_id) DO UPDATE SET words = excluded.words
$$;
--> statement-breakpoint
SELECT mudflat_refill_words();
--> statement-breakpoint
CREATE FUNCTION mudflat_unit_words() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  IF TG_TABLE_NAME = 'job' THEN
    UPDATE unit_words SET words = words || ' ' || NEW.number || ' ' || lower(NEW.complaint) WHERE unit_id = NEW.unit_id;
  ELSE
    INSERT INTO unit_words (unit_id, words) VALUES (NEW.id, mudflat_words_of(NEW.id)) ON CONFLICT (unit_id) DO UPDATE SET words = excluded.words;
  END IF;
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE TRIGGER job_words AFTER INSERT ON "job" FOR EACH ROW EXECUTE FUNCTION mudflat_unit_words();
--> statement-breakpoint
CREATE TRIGGER unit_words_kept AFTER INSERT OR UPDATE ON "unit" FOR EACH ROW EXECUTE FUNCTION mudflat_unit_words();
--> statement-breakpoint
CREATE INDEX job_open_of_unit ON "job" ("unit_id") WHERE "closed_at" IS NULL;
