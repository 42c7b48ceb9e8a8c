CREATE TABLE "estimate_filing" (
	"estimate_id" text PRIMARY KEY NOT NULL,
	"folder" text DEFAULT '' NOT NULL,
	"put_away" boolean DEFAULT false NOT NULL,
	"who" text NOT NULL,
	"filed_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "rate_card" DROP CONSTRAINT "rate_card_provider_valid_from_pk";--> statement-breakpoint
ALTER TABLE "rate_card" ADD COLUMN "revision" integer DEFAULT 1 NOT NULL;--> statement-breakpoint
ALTER TABLE "rate_card" ADD CONSTRAINT "rate_card_provider_valid_from_revision_pk" PRIMARY KEY("provider","valid_from","revision");