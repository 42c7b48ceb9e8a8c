CREATE TABLE "source_mapping" (
	"source" text PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "source_watch" (
	"id" serial PRIMARY KEY NOT NULL,
	"source" text NOT NULL,
	"kind" text NOT NULL,
	"place" text NOT NULL,
	"every_minutes" integer NOT NULL,
	"who" text NOT NULL,
	"last_asked_at" timestamp with time zone,
	"last_said" text
);
--> statement-breakpoint
CREATE TABLE "charge_segment" (
	"load_id" integer NOT NULL,
	"billing_period_start" timestamp with time zone NOT NULL,
	"number" integer NOT NULL,
	"rows" integer NOT NULL,
	"bytes" "bytea" NOT NULL
);
--> statement-breakpoint
CREATE TABLE "exchange_rate" (
	"from" text NOT NULL,
	"to" text NOT NULL,
	"valid_from" date NOT NULL,
	"rate" numeric NOT NULL,
	"who" text NOT NULL,
	"loaded_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "exchange_rate_from_to_valid_from_pk" PRIMARY KEY("from","to","valid_from")
);
--> statement-breakpoint
CREATE TABLE "invoice" (
	"id" serial PRIMARY KEY NOT NULL,
	"issuer" text NOT NULL,
	"invoice_id" text NOT NULL,
	"month" text NOT NULL,
	"currency" text NOT NULL,
	"total" numeric NOT NULL,
	"tax" numeric,
	"note" text DEFAULT '' NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "resource_note" (
	"resource_id" text PRIMARY KEY NOT NULL,
	"body" text NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "saved_sentence" (
	"id" text PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"folder" text DEFAULT '' NOT NULL,
	"description" text DEFAULT '' NOT NULL,
	"owner" text NOT NULL,
	"shared" boolean DEFAULT false NOT NULL,
	"body" jsonb NOT NULL,
	"schedule" jsonb,
	"last_sent_at" timestamp with time zone,
	"last_said" text,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "spend_reference" (
	"id" integer PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "conformance" jsonb;--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "overlaps" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "period_ends" jsonb DEFAULT '{}'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "corrections" jsonb DEFAULT '[]'::jsonb NOT NULL;--> statement-breakpoint
ALTER TABLE "load" ADD COLUMN "mapping" jsonb;--> statement-breakpoint
ALTER TABLE "billing_period" ADD COLUMN "previous_load_id" integer;--> statement-breakpoint
CREATE INDEX "segment_by_load" ON "charge_segment" USING btree ("load_id","billing_period_start");--> statement-breakpoint
ALTER TABLE "charge_segment" ALTER COLUMN "bytes" SET STORAGE EXTERNAL;