CREATE TABLE "savings_answer" (
	"list" uuid NOT NULL,
	"opportunity_id" text NOT NULL,
	"answer" text NOT NULL,
	"reason" text,
	"at" timestamp with time zone DEFAULT now() NOT NULL,
	CONSTRAINT "savings_answer_list_opportunity_id_pk" PRIMARY KEY("list","opportunity_id")
);
--> statement-breakpoint
CREATE TABLE "savings_list" (
	"id" uuid PRIMARY KEY NOT NULL,
	"person" text NOT NULL,
	"message" text,
	"bodies" jsonb NOT NULL,
	"who" text NOT NULL,
	"made_at" timestamp with time zone DEFAULT now() NOT NULL,
	"expires_on" date NOT NULL,
	"revoked_at" timestamp with time zone,
	"mail_state" text,
	"mail_said" text
);
--> statement-breakpoint
CREATE TABLE "savings_list_link" (
	"secret_hash" text PRIMARY KEY NOT NULL,
	"list" uuid NOT NULL
);
--> statement-breakpoint
ALTER TABLE "savings_answer" ADD CONSTRAINT "savings_answer_list_savings_list_id_fk" FOREIGN KEY ("list") REFERENCES "public"."savings_list"("id") ON DELETE cascade ON UPDATE no action;--> statement-breakpoint
ALTER TABLE "savings_list_link" ADD CONSTRAINT "savings_list_link_list_savings_list_id_fk" FOREIGN KEY ("list") REFERENCES "public"."savings_list"("id") ON DELETE cascade ON UPDATE no action;