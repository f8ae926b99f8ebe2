#! target 2.7
def read(path)
  f = File.open(path, # the path
                "r") # to read
  begin
    f.read
  ensure
    f.close
  end
end
