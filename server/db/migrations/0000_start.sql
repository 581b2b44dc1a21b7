CREATE TABLE "circumstance" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "circumstance_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"run_id" uuid NOT NULL,
	"instrument_id" uuid,
	"lead_zero" text,
	"states" jsonb NOT NULL,
	"condition" jsonb NOT NULL,
	"recorded_by" text NOT NULL,
	"recorded_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "depot" (
	"id" uuid PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"time_zone" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "depot_name_unique" UNIQUE("name")
);
--> statement-breakpoint
CREATE TABLE "engine_family" (
	"id" uuid PRIMARY KEY NOT NULL,
	"code" text NOT NULL,
	"engine" jsonb NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "engine_family_code_unique" UNIQUE("code")
);
--> statement-breakpoint
CREATE TABLE "instrument" (
	"id" uuid PRIMARY KEY NOT NULL,
	"depot_id" uuid NOT NULL,
	"name" text NOT NULL,
	"kind" text NOT NULL,
	"accuracy" jsonb NOT NULL,
	"calibration_due" text,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "job" (
	"id" uuid PRIMARY KEY NOT NULL,
	"number" integer GENERATED ALWAYS AS IDENTITY (sequence name "job_number_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"unit_id" uuid NOT NULL,
	"complaint" text NOT NULL,
	"odometer_km" double precision,
	"hours" double precision,
	"opened_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"closed_at" timestamp with time zone
);
--> statement-breakpoint
CREATE TABLE "person" (
	"id" uuid PRIMARY KEY NOT NULL,
	"depot_id" uuid NOT NULL,
	"name" text NOT NULL,
	"role" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "reading" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "reading_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"run_id" uuid NOT NULL,
	"position" text NOT NULL,
	"is_cylinder" boolean NOT NULL,
	"entry" text NOT NULL,
	"supersedes" uuid,
	"why" text,
	"instrument_id" uuid,
	"lead_zero" text,
	"taken_by" text NOT NULL,
	"taken_at" timestamp with time zone NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"judged" jsonb NOT NULL,
	"core_version" text NOT NULL,
	"specification_id" uuid NOT NULL
);
--> statement-breakpoint
CREATE TABLE "specification" (
	"id" uuid PRIMARY KEY NOT NULL,
	"series_id" uuid NOT NULL,
	"revision" integer NOT NULL,
	"test" text NOT NULL,
	"engine_family_id" uuid,
	"limits" jsonb NOT NULL,
	"source" text NOT NULL,
	"status" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "test_run" (
	"id" uuid PRIMARY KEY NOT NULL,
	"job_id" uuid NOT NULL,
	"test" text NOT NULL,
	"specification_id" uuid NOT NULL,
	"started_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	"judgement" jsonb
);
--> statement-breakpoint
CREATE TABLE "unit" (
	"id" uuid PRIMARY KEY NOT NULL,
	"depot_id" uuid NOT NULL,
	"engine_family_id" uuid NOT NULL,
	"fleet_number" text NOT NULL,
	"kind" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "unit_fleet_number_unique" UNIQUE("fleet_number")
);
--> statement-breakpoint
ALTER TABLE "circumstance" ADD CONSTRAINT "circumstance_run_id_test_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."test_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "circumstance" ADD CONSTRAINT "circumstance_instrument_id_instrument_id_fk" FOREIGN KEY ("instrument_id") REFERENCES "public"."instrument"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "instrument" ADD CONSTRAINT "instrument_depot_id_depot_id_fk" FOREIGN KEY ("depot_id") REFERENCES "public"."depot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "job" ADD CONSTRAINT "job_unit_id_unit_id_fk" FOREIGN KEY ("unit_id") REFERENCES "public"."unit"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "person" ADD CONSTRAINT "person_depot_id_depot_id_fk" FOREIGN KEY ("depot_id") REFERENCES "public"."depot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_run_id_test_run_id_fk" FOREIGN KEY ("run_id") REFERENCES "public"."test_run"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_instrument_id_instrument_id_fk" FOREIGN KEY ("instrument_id") REFERENCES "public"."instrument"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_specification_id_specification_id_fk" FOREIGN KEY ("specification_id") REFERENCES "public"."specification"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "specification" ADD CONSTRAINT "specification_engine_family_id_engine_family_id_fk" FOREIGN KEY ("engine_family_id") REFERENCES "public"."engine_family"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test_run" ADD CONSTRAINT "test_run_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "test_run" ADD CONSTRAINT "test_run_specification_id_specification_id_fk" FOREIGN KEY ("specification_id") REFERENCES "public"."specification"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "unit" ADD CONSTRAINT "unit_depot_id_depot_id_fk" FOREIGN KEY ("depot_id") REFERENCES "public"."depot"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "unit" ADD CONSTRAINT "unit_engine_family_id_engine_family_id_fk" FOREIGN KEY ("engine_family_id") REFERENCES "public"."engine_family"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "circumstance_run" ON "circumstance" USING btree ("run_id","sequence");--> statement-breakpoint
CREATE INDEX "job_unit" ON "job" USING btree ("unit_id");--> statement-breakpoint
CREATE INDEX "job_open" ON "job" USING btree ("closed_at");--> statement-breakpoint
CREATE INDEX "reading_run" ON "reading" USING btree ("run_id","sequence");--> statement-breakpoint
CREATE UNIQUE INDEX "reading_superseded_once" ON "reading" USING btree ("supersedes");--> statement-breakpoint
CREATE UNIQUE INDEX "reading_first_once" ON "reading" USING btree ("run_id","is_cylinder","position") WHERE supersedes is null;--> statement-breakpoint
CREATE UNIQUE INDEX "specification_revision" ON "specification" USING btree ("series_id","revision");--> statement-breakpoint
CREATE INDEX "specification_test" ON "specification" USING btree ("test");--> statement-breakpoint
CREATE INDEX "test_run_job" ON "test_run" USING btree ("job_id");