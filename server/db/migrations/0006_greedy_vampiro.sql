CREATE TABLE "job_record" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "job_record_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "service_data" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "service_data_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"engine_family_id" uuid,
	"kind" text NOT NULL,
	"key" text NOT NULL,
	"body" jsonb NOT NULL,
	"source" text NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job" ADD COLUMN "number_there" integer;--> statement-breakpoint
ALTER TABLE "job_record" ADD CONSTRAINT "job_record_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "service_data" ADD CONSTRAINT "service_data_engine_family_id_engine_family_id_fk" FOREIGN KEY ("engine_family_id") REFERENCES "public"."engine_family"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "job_record_job" ON "job_record" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE INDEX "service_data_key" ON "service_data" USING btree ("kind","key","sequence");--> statement-breakpoint
CREATE TRIGGER job_record_append_only BEFORE UPDATE OR DELETE ON "job_record" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER service_data_append_only BEFORE UPDATE OR DELETE ON "service_data" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
-- A job that came from elsewhere keeps, in its trail, the number that it had there.
CREATE OR REPLACE FUNCTION mudflat_content(kind text, row_ jsonb) RETURNS text LANGUAGE sql STABLE SET timezone TO 'UTC' SET extra_float_digits TO '1' AS $$
  SELECT (CASE kind
    WHEN 'test_run' THEN row_ - 'judgement' - 'specification_id' - 'because'
    WHEN 'job' THEN (CASE WHEN coalesce(row_->'number_there', 'null'::jsonb) = 'null'::jsonb THEN row_ ELSE jsonb_set(row_, '{number}', row_->'number_there') END) - 'closed_at' - 'number_there'
    ELSE row_ END)::text
$$;
--> statement-breakpoint
-- A job that is taken in from a bundle brings its trail with it: it is checked as a whole before it is kept.
CREATE OR REPLACE FUNCTION mudflat_event() RETURNS trigger LANGUAGE plpgsql SET timezone TO 'UTC' SET extra_float_digits TO '1' AS $$
DECLARE
  row_ jsonb := to_jsonb(NEW);
  job uuid;
BEGIN
  IF TG_TABLE_NAME = 'job' THEN job := NEW.id;
  ELSIF row_ ? 'run_id' THEN SELECT r.job_id INTO job FROM test_run r WHERE r.id = (row_->>'run_id')::uuid;
  ELSE job := (row_->>'job_id')::uuid;
  END IF;
  IF coalesce(current_setting('mudflat.takes_in', true), '') = job::text THEN RETURN NULL; END IF;
  PERFORM mudflat_append(TG_TABLE_NAME, job, row_);
  RETURN NULL;
END $$;
--> statement-breakpoint
CREATE OR REPLACE FUNCTION mudflat_stray_rows(job_ uuid) RETURNS TABLE (kind text, row_id uuid) LANGUAGE sql STABLE AS $$
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
    UNION ALL SELECT 'job_record', id FROM job_record WHERE job_id = job_
  ) rows WHERE NOT EXISTS (SELECT 1 FROM job_event e WHERE e.job_id = job_ AND e.row_id = i AND e.kind = k)
$$;
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER job_record_event AFTER INSERT ON "job_record" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
