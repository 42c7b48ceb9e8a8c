CREATE TABLE "undone_action" (
	"id" serial PRIMARY KEY NOT NULL,
	"opportunity_id" text NOT NULL,
	"body" jsonb NOT NULL,
	"approved_by" text NOT NULL,
	"done_at" timestamp with time zone NOT NULL,
	"undone_at" timestamp with time zone NOT NULL,
	"undone_by" text NOT NULL,
	"promised_monthly" numeric NOT NULL,
	"currency" text NOT NULL,
	"steps" jsonb NOT NULL
);
--> statement-breakpoint
ALTER TABLE "action" ADD COLUMN "undoing" jsonb;