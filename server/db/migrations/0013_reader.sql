ALTER TABLE "installation" ADD COLUMN "locale" jsonb;--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "locale" jsonb;--> statement-breakpoint
ALTER TABLE "job_standing" ADD COLUMN "locale" text DEFAULT 'en/point/given/dmy' NOT NULL;--> statement-breakpoint
ALTER TABLE "job_standing" DROP CONSTRAINT "job_standing_pkey";--> statement-breakpoint
ALTER TABLE "job_standing" ADD CONSTRAINT "job_standing_job_id_locale_pk" PRIMARY KEY("job_id","locale");
