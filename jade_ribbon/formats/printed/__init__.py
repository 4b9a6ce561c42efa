"""What is printed on paper at true size."""
