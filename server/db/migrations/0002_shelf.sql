CREATE TABLE "job_note" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "job_note_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"kind" text NOT NULL,
	"body" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "lead" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "lead_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"depot_id" uuid NOT NULL,
	"name" text NOT NULL,
	"zero" text,
	"measured_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "test_definition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"test_id" text NOT NULL,
	"revision" integer NOT NULL,
	"definition" jsonb,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "depot" ADD COLUMN "choices" jsonb DEFAULT '{"schools":{},"decision":"three-way"}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "details" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "replaced_by" uuid;--> statement-breakpoint
ALTER TABLE "instrument" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "scope" text DEFAULT 'general' NOT NULL;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "part" text;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "depot_id" uuid;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "applies" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "school" text;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "document" text;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "page" text;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "document_revision" text;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "document_date" text;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "recorded_by" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "specification" ADD COLUMN "ships" boolean DEFAULT false NOT NULL;--> statement-breakpoint
ALTER TABLE "test_run" ADD COLUMN "definition" jsonb;--> statement-breakpoint
ALTER TABLE "test_run" ADD COLUMN "decision" text DEFAULT 'three-way' NOT NULL;--> statement-breakpoint
ALTER TABLE "test_run" ADD COLUMN "because" text DEFAULT '' NOT NULL;--> statement-breakpoint
ALTER TABLE "unit" ADD COLUMN "parts" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "job_note" ADD CONSTRAINT "job_note_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "lead" ADD CONSTRAINT "lead_depot_id_depot_id_fk" FOREIGN KEY ("depot_id") REFERENCES "public"."depot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "job_note_job" ON "job_note" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE INDEX "lead_depot" ON "lead" USING btree ("depot_id","sequence");--> statement-breakpoint
CREATE UNIQUE INDEX "test_definition_revision" ON "test_definition" USING btree ("test_id","revision");--> statement-breakpoint
ALTER TABLE "specification" ADD CONSTRAINT "specification_depot_id_depot_id_fk" FOREIGN KEY ("depot_id") REFERENCES "public"."depot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "specification" DISABLE TRIGGER specification_append_only;
--> statement-breakpoint
UPDATE "specification" SET "scope" = 'family' WHERE "engine_family_id" IS NOT NULL;
--> statement-breakpoint
ALTER TABLE "specification" ENABLE TRIGGER specification_append_only;
--> statement-breakpoint
CREATE TRIGGER lead_append_only BEFORE UPDATE OR DELETE ON "lead" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER test_definition_append_only BEFORE UPDATE OR DELETE ON "test_definition" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER job_note_append_only BEFORE UPDATE OR DELETE ON "job_note" FOR EACH ROW EXECUTE FUNCTION refuse_change();
