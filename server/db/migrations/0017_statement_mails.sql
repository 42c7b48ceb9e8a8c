CREATE TABLE "statement_mail" (
	"month" text NOT NULL,
	"person" text NOT NULL,
	"state" text NOT NULL,
	"said" text NOT NULL,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "statement_mail_month_person_pk" PRIMARY KEY("month","person")
);
--> statement-breakpoint
ALTER TABLE "person" ADD COLUMN "mail" text;--> statement-breakpoint
ALTER TABLE "statement_mail" ADD CONSTRAINT "statement_mail_month_closed_month_month_fk" FOREIGN KEY ("month") REFERENCES "public"."closed_month"("month") ON DELETE no action ON UPDATE no action;