CREATE TABLE "trace" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "trace_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"name" text NOT NULL,
	"head" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "trace_block" (
	"trace_id" uuid NOT NULL,
	"stream" integer NOT NULL,
	"number" integer NOT NULL,
	"content" "bytea" NOT NULL,
	"pyramid" "bytea" NOT NULL,
	CONSTRAINT "trace_block_trace_id_stream_number_pk" PRIMARY KEY("trace_id","stream","number")
);
--> statement-breakpoint
CREATE TABLE "trace_note" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "trace_note_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"trace_id" uuid NOT NULL,
	"body" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "trace" ADD CONSTRAINT "trace_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trace_block" ADD CONSTRAINT "trace_block_trace_id_trace_id_fk" FOREIGN KEY ("trace_id") REFERENCES "public"."trace"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trace_note" ADD CONSTRAINT "trace_note_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "trace_note" ADD CONSTRAINT "trace_note_trace_id_trace_id_fk" FOREIGN KEY ("trace_id") REFERENCES "public"."trace"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "trace_job" ON "trace" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE INDEX "trace_note_trace" ON "trace_note" USING btree ("trace_id","sequence");--> statement-breakpoint
CREATE TRIGGER trace_append_only BEFORE UPDATE OR DELETE ON "trace" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER trace_no_truncate BEFORE TRUNCATE ON "trace" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER trace_block_append_only BEFORE UPDATE OR DELETE ON "trace_block" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER trace_block_no_truncate BEFORE TRUNCATE ON "trace_block" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER trace_note_append_only BEFORE UPDATE OR DELETE ON "trace_note" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER trace_note_no_truncate BEFORE TRUNCATE ON "trace_note" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
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
    UNION ALL SELECT 'job_record', id FROM job_record WHERE job_id = job_
  ) rows WHERE NOT EXISTS (SELECT 1 FROM job_event e WHERE e.job_id = job_ AND e.row_id = i AND e.kind = k)
$$;
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER trace_event AFTER INSERT ON "trace" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
--> statement-breakpoint
CREATE CONSTRAINT TRIGGER trace_note_event AFTER INSERT ON "trace_note" DEFERRABLE INITIALLY DEFERRED FOR EACH ROW EXECUTE FUNCTION mudflat_event();
