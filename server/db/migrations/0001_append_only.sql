-- Readings and circumstances are facts of a moment: they are added, never changed or removed.
CREATE FUNCTION refuse_change() RETURNS trigger LANGUAGE plpgsql AS $$
BEGIN
  RAISE EXCEPTION '% is append-only', TG_TABLE_NAME USING ERRCODE = 'restrict_violation';
END $$;
--> statement-breakpoint
CREATE TRIGGER reading_append_only BEFORE UPDATE OR DELETE ON "reading" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER circumstance_append_only BEFORE UPDATE OR DELETE ON "circumstance" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
CREATE TRIGGER specification_append_only BEFORE UPDATE OR DELETE ON "specification" FOR EACH ROW EXECUTE FUNCTION refuse_change();
--> statement-breakpoint
ALTER TABLE "reading" ADD CONSTRAINT "reading_supersedes_fk" FOREIGN KEY ("supersedes") REFERENCES "reading"("id");
