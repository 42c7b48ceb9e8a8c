-- charges are kept as columns only: what was kept as rows is loaded again from its files
DELETE FROM "billing_period";--> statement-breakpoint
DELETE FROM "charge_segment";--> statement-breakpoint
UPDATE "load" SET "state" = 'undone', "message" = 'Charges are kept in another form since this version: load the files again.' WHERE "state" IN ('loaded', 'choosing');--> statement-breakpoint
-- columns of numbers hardly get smaller, and making them so takes as long as reading the charges
ALTER TABLE "charge_segment" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;--> statement-breakpoint
DROP TABLE "charge" CASCADE;--> statement-breakpoint
ALTER TABLE "source_watch" ADD COLUMN "together" text DEFAULT 'file' NOT NULL;--> statement-breakpoint
ALTER TABLE "saved_sentence" ADD COLUMN "last_tried_at" timestamp with time zone;
