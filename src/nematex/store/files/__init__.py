"""Where photos are kept: in the database itself, in a folder, or in a store that speaks S3, as NEMATEX_FILES says."""
