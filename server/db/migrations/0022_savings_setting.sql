CREATE TABLE "savings_setting" (
	"key" text PRIMARY KEY NOT NULL,
	"value" numeric NOT NULL,
	"who" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL
);
