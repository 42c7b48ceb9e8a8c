CREATE TABLE "lookup_version" (
	"version" serial PRIMARY KEY NOT NULL,
	"name" text NOT NULL,
	"body" jsonb,
	"who" text NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
--> statement-breakpoint
CREATE INDEX "lookup_version_name" ON "lookup_version" USING btree ("name","version");