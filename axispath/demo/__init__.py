"""The harbour at Skerry Point: made-up sheets that show each part of the job."""
