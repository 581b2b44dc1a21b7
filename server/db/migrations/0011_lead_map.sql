CREATE TABLE "lead_map" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "lead_map_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "lead_map" ADD CONSTRAINT "lead_map_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "lead_map_job" ON "lead_map" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE TRIGGER lead_map_append_only BEFORE UPDATE OR DELETE ON "lead_map" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER lead_map_no_truncate BEFORE TRUNCATE ON "lead_map" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
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
    UNION ALL SELECT 'trace', id FROM trace WHERE job_id = job_
    UNION ALL SELECT 'trace_note', id FROM trace_note WHERE job_id = job_
    UNION ALL SELECT 'lead_map', id FROM lead_map WHERE job_id = job_
    UNION ALL SELECT 'job_record', id FROM job_record WHERE job_id = job_
  ) rows WHERE NOT EXISTS (SELECT 1 FROM job_event e WHERE e.job_id = job_ AND e.row_id = i AND e.kind = k)
$$;
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER lead_map_event AFTER INSERT ON "lead_map" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
