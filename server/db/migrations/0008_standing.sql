CREATE TABLE "job_standing" (
	"job_id" uuid PRIMARY KEY NOT NULL,
	"key" text NOT NULL,
	"until" timestamp with time zone NOT NULL,
	"progress" jsonb NOT NULL,
	"conclusions" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "job_standing" ADD CONSTRAINT "job_standing_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;