ALTER TABLE "invoice" ADD COLUMN "lines" integer;--> statement-breakpoint
ALTER TABLE "invoice" ADD COLUMN "rounds" text DEFAULT 'lines' NOT NULL;