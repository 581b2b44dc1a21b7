CREATE TABLE "code_observation" (
	"id" uuid PRIMARY KEY NOT NULL,
	"sequence" integer GENERATED ALWAYS AS IDENTITY (sequence name "code_observation_sequence_seq" INCREMENT BY 1 MINVALUE 1 MAXVALUE 2147483647 START WITH 1 CACHE 1),
	"job_id" uuid NOT NULL,
	"code" text,
	"phase" text NOT NULL,
	"status" text NOT NULL,
	"takes_back" uuid,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "code_observation" ADD CONSTRAINT "code_observation_job_id_job_id_fk" FOREIGN KEY ("job_id") REFERENCES "public"."job"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "code_observation_job" ON "code_observation" USING btree ("job_id","sequence");--> statement-breakpoint
CREATE UNIQUE INDEX "code_observation_taken_back_once" ON "code_observation" USING btree ("takes_back");--> statement-breakpoint
ALTER TABLE "code_observation" ADD CONSTRAINT "code_observation_takes_back_fk" FOREIGN KEY ("takes_back") REFERENCES "code_observation"("id");
--> statement-breakpoint
CREATE TRIGGER code_observation_append_only BEFORE UPDATE OR DELETE ON "code_observation" FOR EACH ROW EXECUTE FUNCTION refuse_change();
