CREATE TABLE "circuit_definition" (
	"id" uuid PRIMARY KEY NOT NULL,
	"circuit_id" text NOT NULL,
	"revision" integer NOT NULL,
	"definition" jsonb,
	"recorded_by" text NOT NULL,
	"created_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE UNIQUE INDEX "circuit_definition_revision" ON "circuit_definition" USING btree ("circuit_id","revision");--> statement-breakpoint
CREATE TRIGGER circuit_definition_append_only BEFORE UPDATE OR DELETE ON "circuit_definition" FOR EACH ROW EXECUTE FUNCTION refuse_change();
