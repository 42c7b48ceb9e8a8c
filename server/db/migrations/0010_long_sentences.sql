CREATE TABLE "long_sentence" (
	"id" text PRIMARY KEY NOT NULL,
	"query" jsonb NOT NULL,
	"saved_at" timestamp with time zone DEFAULT now() NOT NULL
);
