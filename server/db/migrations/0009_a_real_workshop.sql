CREATE TABLE "heartbeat" (
	"id" integer PRIMARY KEY NOT NULL,
	"beat_at" timestamp with time zone NOT NULL
);
--> statement-breakpoint
CREATE TABLE "installation" (
	"id" integer PRIMARY KEY DEFAULT 1 NOT NULL,
	"kind" text NOT NULL,
	"name" text DEFAULT '' NOT NULL,
	"setup_code" text,
	"logo" "bytea",
	"logo_type" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "depot" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "engine_family" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "unit" ADD COLUMN "number_key" text;--> statement-breakpoint
ALTER TABLE "unit" ADD COLUMN "retired_at" timestamp with time zone;--> statement-breakpoint
ALTER TABLE "unit" ADD CONSTRAINT "unit_number_key_unique" UNIQUE("number_key");--> statement-breakpoint
-- Numbers that look alike are one; where two units of before are, the older rows keep what they have and get no key.
UPDATE "unit" SET "number_key" = k.key FROM (
  SELECT id, lower(regexp_replace(fleet_number, '\s', '', 'g')) AS key,
    count(*) OVER (PARTITION BY lower(regexp_replace(fleet_number, '\s', '', 'g'))) AS same FROM "unit"
) k WHERE k.id = "unit".id AND k.same = 1;
--> statement-breakpoint
CREATE TRIGGER reading_no_truncate BEFORE TRUNCATE ON "reading" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER circumstance_no_truncate BEFORE TRUNCATE ON "circumstance" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER specification_no_truncate BEFORE TRUNCATE ON "specification" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER lead_no_truncate BEFORE TRUNCATE ON "lead" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER test_definition_no_truncate BEFORE TRUNCATE ON "test_definition" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER job_note_no_truncate BEFORE TRUNCATE ON "job_note" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER code_observation_no_truncate BEFORE TRUNCATE ON "code_observation" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER intake_no_truncate BEFORE TRUNCATE ON "intake" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER evidence_no_truncate BEFORE TRUNCATE ON "evidence" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER finding_no_truncate BEFORE TRUNCATE ON "finding" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER plan_change_no_truncate BEFORE TRUNCATE ON "plan_change" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER photo_no_truncate BEFORE TRUNCATE ON "photo" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER photo_content_no_truncate BEFORE TRUNCATE ON "photo_content" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER code_description_no_truncate BEFORE TRUNCATE ON "code_description" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER job_event_no_truncate BEFORE TRUNCATE ON "job_event" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER circuit_definition_no_truncate BEFORE TRUNCATE ON "circuit_definition" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER job_record_no_truncate BEFORE TRUNCATE ON "job_record" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER service_data_no_truncate BEFORE TRUNCATE ON "service_data" FOR EACH STATEMENT EXECUTE FUNCTION refuse_change();
