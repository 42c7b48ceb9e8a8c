CREATE TABLE "estimate_link" (
	"id" text PRIMARY KEY NOT NULL,
	"secret_hash" text NOT NULL,
	"estimate_id" text NOT NULL,
	"version" integer NOT NULL,
	"audience" text NOT NULL,
	"body" jsonb NOT NULL,
	"expires_on" date NOT NULL,
	"revoked_at" timestamp with time zone,
	"who" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "estimate_link_secret_hash_unique" UNIQUE("secret_hash")
);
--> statement-breakpoint
CREATE TABLE "card_schedule" (
	"connection" text PRIMARY KEY NOT NULL,
	"every_hours" integer NOT NULL,
	"last_asked_at" timestamp with time zone,
	"last_said" text
);
--> statement-breakpoint
CREATE TABLE "pattern" (
	"id" text PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE TABLE "uplift_set" (
	"id" text PRIMARY KEY NOT NULL,
	"body" jsonb NOT NULL,
	"who" text NOT NULL,
	"set_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
ALTER TABLE "estimate_version" ADD COLUMN "name" text;