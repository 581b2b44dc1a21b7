ALTER TABLE "photo" ADD COLUMN "reading_id" uuid;--> statement-breakpoint
ALTER TABLE "photo" ADD CONSTRAINT "photo_reading_id_reading_id_fk" FOREIGN KEY ("reading_id") REFERENCES "public"."reading"("id") ON DELETE no action ON UPDATE no action;--> statement-breakpoint
CREATE INDEX "photo_reading" ON "photo" USING btree ("reading_id");