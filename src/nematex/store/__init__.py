"""What is kept in MariaDB. Nothing outside this package imports the database library."""
